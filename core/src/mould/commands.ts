import { z } from 'zod/mini';
import { field } from '../fields/registry';
import { sources, roomAir } from '../fields/sources';
import { BAR_FAULTS, FILLED_BY, RELEASES, weights } from '../work/moulding';
import { massOrNoneG, pieces, tempC, note } from '../fields/fields';

export const mould = z
  .object({
    kind: z.literal('mould'),
    sources,
    barG: field(z.number().check(z.positive('must be more than 0 g'), z.maximum(20_000, 'is more than 20 kg')), {
      label: 'Weight of a bar',
      unit: 'g',
    }),
    cavities: field(z.number().check(z.int('must be whole'), z.minimum(1), z.maximum(10_000)), { label: 'Cavities' }),
    goodPieces: field(pieces, { label: 'Good bars' }),
    /** All good bars on the scale; left out, they count at their declared weight. */
    goodG: field(z.optional(massOrNoneG), { label: 'All good bars on the scale' }),
    secondsPieces: field(z._default(pieces, 0), { label: 'Seconds' }),
    remeltG: field(z._default(massOrNoneG, 0), { label: 'Back to remelt' }),
    /** What was left over: poured as blocks, or eaten as samples. */
    blockG: field(z.optional(massOrNoneG), { label: 'Poured as blocks' }),
    sampleG: field(z.optional(massOrNoneG), { label: 'Samples' }),
    trimmingsG: field(z._default(massOrNoneG, 0), { label: 'Trimmings' }),
    holdUpG: field(z._default(massOrNoneG, 0), { label: 'Left in the machine' }),
    /** Of the moulds as they were filled, °C. */
    mouldC: field(z.optional(z.nullable(tempC)), { label: 'Moulds were at' }),
    /** Where it set, °C, and that room's air: a bar colder than its dew point sweats. */
    setC: field(z.optional(z.nullable(tempC)), { label: 'Set at', usual: [12, 18] }),
    air: z.optional(z.nullable(roomAir)),
    /** What single pieces weighed, in the order in which they were weighed. */
    weightsG: field(z.optional(weights), { label: 'What pieces weigh' }),
    /** Of the seconds, why. */
    faults: z.optional(
      z
        .array(z.object({ fault: z.enum(BAR_FAULTS), pieces: field(pieces, { label: 'Of them' }) }))
        .check(z.maxLength(20)),
    ),
    release: field(z.optional(z.nullable(z.enum(RELEASES))), {
      label: 'Left their moulds',
      words: { 'by-itself': 'By themselves', tapped: 'Tapped', stuck: 'Some stuck' },
    }),
    /** By hand or by a depositor, and whether the air was vibrated out. */
    filledBy: field(z.optional(z.enum(FILLED_BY)), {
      label: 'Filled',
      words: { hand: 'By hand', depositor: 'By a depositor' },
    }),
    vibrated: field(z.optional(z.boolean()), { label: 'Vibrated' }),
    /** Minutes until bars had drawn back from their moulds. */
    contractMin: field(
      z.optional(
        z.nullable(z.number().check(z.minimum(0, 'cannot be below 0'), z.maximum(1440, 'is more than a day'))),
      ),
      { label: 'Drew back after', unit: 'min' },
    ),
    note,
  })
  .check(
    z.refine(({ faults = [], secondsPieces }) => faults.reduce((sum, row) => sum + row.pieces, 0) <= secondsPieces, {
      message: 'are fewer than what is wrong with them adds up to',
      path: ['secondsPieces'],
    }),
  );
export type MouldCommand = z.infer<typeof mould>;
