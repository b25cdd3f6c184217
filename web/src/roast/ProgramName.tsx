import { useController, type Control } from 'react-hook-form';
import { useRecordFields } from '../record/form';

/** The name of a program, as the heading of its page. */
export function ProgramName() {
  const { form } = useRecordFields();
  const {
    field: { ref, value, onChange },
    fieldState,
  } = useController({ control: form.control as unknown as Control<{ name: string }>, name: 'name' });
  const problem = fieldState.error?.message;
  return (
    <>
      <input
        className="w-full bg-transparent font-display text-4xl font-semibold outline-offset-4"
        aria-label="Name of the program"
        aria-invalid={problem !== undefined}
        ref={ref}
        value={value}
        onChange={(event) => onChange(event.target.value)}
      />
      {problem !== undefined && <p className="mt-2 text-sm font-semibold text-crimson">{problem}</p>}
    </>
  );
}
