interface Placed {
  id: string;
  station: string;
  retired?: boolean | undefined;
}

/**
 * Machines that work can be given to at a station: those that are still used, and one that was chosen before it was
 * retired.
 *
 * @param chosen id of a machine that stays in the list whatever became of it
 * @example machinesAt([{ id: 'a', station: 'grind', retired: true }], 'grind') // []
 */
export const machinesAt = <M extends Placed>(machines: Iterable<M>, station: string, chosen?: string | null): M[] =>
  [...machines].filter((machine) => machine.station === station && (machine.retired !== true || machine.id === chosen));
