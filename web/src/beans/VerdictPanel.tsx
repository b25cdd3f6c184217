import type { ArrivalVerdict } from '@wunsch/core/beans/verdict';

/** What the findings say so far, why, and how sure. */
export function VerdictPanel({ verdict, title }: { verdict: ArrivalVerdict; title: string }) {
  const tone =
    verdict.action === 'take-in'
      ? verdict.missing.length > 0
        ? 'bg-sunk'
        : 'bg-leaf-wash'
      : verdict.action === 'refuse'
        ? 'bg-crimson-wash'
        : 'bg-ripe-wash';
  return (
    <section className={`rounded-md px-4 py-3 ${tone}`} aria-label={title} aria-live="polite">
      <div className="text-sm text-soft">{title}</div>
      <p className="figure mt-1 text-[1.35rem] leading-snug">{verdict.sentence}</p>
      {verdict.reasons.length > 0 && (
        <ul className="mt-2 grid gap-1.5 text-sm">
          {verdict.reasons.map((reason) => (
            <li key={reason.text}>
              {reason.text}
              {!reason.sure && <em> Not sure yet.</em>}
            </li>
          ))}
        </ul>
      )}
      {verdict.cut && (
        <p className="mt-2 text-sm">
          <strong>Cut test: {verdict.cut.sentence}</strong> <span className="text-soft">{verdict.cut.why}</span>
        </p>
      )}
      {verdict.good.length > 0 && (
        <ul className="mt-2 grid gap-1 text-[0.8125rem] text-soft">
          {verdict.good.map((text) => (
            <li key={text}>{text}</li>
          ))}
        </ul>
      )}
    </section>
  );
}
