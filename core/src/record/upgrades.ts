/* How what was written down by an older program is read by this one: a version by kind, and what takes it on. */

type Value = Readonly<Record<string, unknown>>;

/** Takes a record of one version to the next. It knows only what that older version could hold. */
export type Upgrade = (value: Value) => Record<string, unknown>;

/** Of one room, by kind of record: the first takes version 1 to 2. A kind that is not named never changed. */
export type Upgrades = Readonly<Record<string, readonly Upgrade[]>>;

/** The version in which a kind is written now. */
export const versionOf = (upgrades: Upgrades, kind: string): number => 1 + (upgrades[kind]?.length ?? 0);

/**
 * A record of any older version as this program writes it.
 *
 * @example upgraded({ look: [(value) => ({ ...value, by: 'hand' })] }, 'look', 1, { kind: 'look' })
 * @throws RangeError where it was written by a newer program than this one
 */
export function upgraded(upgrades: Upgrades, kind: string, version: number, value: Value): Value {
  const now = versionOf(upgrades, kind);
  if (version > now)
    throw new RangeError(`is of version ${version}, written by a newer program; this one knows ${now}`);
  return (upgrades[kind] ?? []).slice(version - 1).reduce<Value>((was, upgrade) => upgrade(was), value);
}
