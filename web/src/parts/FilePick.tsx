import { useRef } from 'react';

interface Props {
  /** What kind of file it is, for those who cannot see the button. */
  label: string;
  accept: string;
  disabled: boolean;
  main: boolean;
  onPick: (file: File) => void;
  children: string;
}

/** A button that asks for a file; the same file can be chosen again. */
export function FilePick({ label, accept, disabled, main, onPick, children }: Props) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={input}
        type="file"
        accept={accept}
        className="sr-only"
        tabIndex={-1}
        aria-label={label}
        onChange={(event) => {
          const file = event.target.files?.[0];
          event.target.value = '';
          if (file) onPick(file);
        }}
      />
      <button
        type="button"
        className={`button mt-4 ${main ? 'button-main' : ''}`}
        disabled={disabled}
        onClick={() => input.current?.click()}
      >
        {children}
      </button>
    </>
  );
}
