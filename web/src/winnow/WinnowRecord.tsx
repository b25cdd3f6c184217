import { DIAL_NAMES, DIALS } from '@wunsch/core/winnow/response';
import { sampleShare } from '@wunsch/core/winnow/samples';
import type { Command } from '@wunsch/core/commands';
import type { StepView } from '@wunsch/core/api/types';
import { useApi } from '../parts/api';
import { Section } from '../parts/pieces';
import { useShow } from '../parts/workshop';
import { extrasFrom, METHOD_NAMES, PASS_NAMES } from './extras';
import { Advice } from './Advice';

type Winnowing = Extract<Command, { kind: 'winnow' }>;

/** What a winnowing was set to and what was picked out of it, as it was written down. */
export function WinnowRecord({ step }: { step: StepView }) {
  const command = step.command as Winnowing;
  const show = useShow();
  const from = step.lines.find((line) => line.massMg < 0 && line.code !== null)?.code;
  // Held against what was known before it: the advice stays what it was when it was weighed.
  const past = useApi(
    from == null ? null : `/api/winnow/past/${encodeURIComponent(from)}?before=${encodeURIComponent(step.id)}`,
  ).data;
  const { method, settings = {}, passes = [], shellSamples = [], nibSamples = [], sieve } = command;
  const shares = (name: string, samples: readonly { sampleG: number; foundG: number }[]): [string, string][] => {
    const share = sampleShare(samples);
    if (!share) return [];
    const range = share.n > 1 ? `, ${show.percent(share.low)} to ${show.percent(share.high)}` : '';
    return [[name, `${show.percent(share.mean)} in ${share.n} ${share.n === 1 ? 'sample' : 'samples'}${range}`]];
  };
  const dials = DIALS.flatMap((dial) => (settings[dial] == null ? [] : [`${DIAL_NAMES[dial]} ${settings[dial]}`]));
  const rows: [string, string][] = [
    ...(method === undefined ? [] : [['How', METHOD_NAMES[method]] as [string, string]]),
    ...(dials.length === 0 ? [] : [['Set to', dials.join(', ')] as [string, string]]),
    ...passes.map(({ what, nibsG, minutes }): [string, string] => [
      PASS_NAMES[what],
      `${show.mass(nibsG * 1000)} nibs${minutes > 0 ? `, ${minutes} min` : ''}`,
    ]),
    ...shares('Shell in nibs', shellSamples),
    ...shares('Nib in husk', nibSamples),
    ...(sieve
      ? [
          [
            'Sieves',
            `coarse ${sieve.coarseG} g, good ${sieve.goodG} g, fines ${sieve.finesG} g, dust ${sieve.dustG} g`,
          ] as [string, string],
        ]
      : []),
  ];
  if (rows.length === 0) return null;
  return (
    <Section title="Set and sampled">
      <dl className="rows">
        {rows.map(([name, value]) => (
          <div key={name} className="grid grid-cols-[8rem_1fr] gap-3 py-1.5">
            <dt className="text-soft">{name}</dt>
            <dd>{value}</dd>
          </div>
        ))}
      </dl>
      {past && (shellSamples.length > 0 || nibSamples.length > 0) && (
        <div className="mt-4">
          <Advice
            extras={extrasFrom(command)}
            past={past}
            huskG={command.huskG}
            inG={step.inMg / 1000}
            about={step.id}
          />
        </div>
      )}
    </Section>
  );
}
