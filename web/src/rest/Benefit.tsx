import { Link } from 'react-router';
import { useApi } from '../parts/api';
import { Section } from '../parts/pieces';
import { Overrule } from '../parts/Overrule';

/** Whether resting helps, bar by bar: scores of past batches against the days that their blocks had rested. */
export function Benefit({ names }: { names: readonly string[] }) {
  const { data } = useApi('/api/rest/benefit');
  const bars = (data?.bars ?? []).filter(({ name }) => names.includes(name));
  if (bars.length === 0) return null;
  return (
    <Section title="Does resting help?" aside="scores against days, own batches">
      <ul className="rows">
        {bars.map(({ name, rows, verdict }) => {
          return (
            <li key={name} className="py-3">
              <div>
                <p className="text-lg">{name}</p>
                <p className={verdict.tone === 'quiet' ? 'text-soft' : 'font-semibold'}>{verdict.sentence}</p>
                <Overrule judged="rest" subject={name} said={verdict.sentence} />
                <p className="text-sm text-soft">
                  {rows.slice(-6).map((row) => (
                    <Link key={`${row.code} ${row.restedDays}`} className="link mr-2" to={`/batch/${row.code}`}>
                      <span className="code">{row.code}</span> {row.restedDays.toFixed(0)} d, {row.score.toFixed(1)}
                    </Link>
                  ))}
                </p>
              </div>
            </li>
          );
        })}
      </ul>
      <p className="mt-1 text-sm text-soft">
        A slope from unlike batches is a hint, no proof: rest two halves of one batch unlike and taste them blind.
      </p>
    </Section>
  );
}
