import { Refusal } from '../parts/pieces';
import { useIntoView } from './into-view';

/** Why an entry was not taken, brought into view; a field that is at fault is gone to after it. */
export function Refused({ error, placed }: { error: unknown; placed: ReadonlySet<string> }) {
  const box = useIntoView<HTMLDivElement>(error);
  return (
    <div ref={box}>
      <Refusal error={error} placed={placed} />
    </div>
  );
}
