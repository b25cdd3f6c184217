/** Schools of roasting; none is the right one. */
export const SCHOOLS = ['steps', 'steady', 'hot and quick', 'low and long', 'drum', 'pan', 'nib', 'own'] as const;
export type School = (typeof SCHOOLS)[number];

/** Where the readings of a live roast come from; `hand` for none but those typed in. */
export const PROBES = ['simulated', 'sent', 'hand'] as const;
export type Probe = (typeof PROBES)[number];

export const ROASTER_KINDS = ['oven', 'drum', 'pan', 'other'] as const;
export type RoasterKind = (typeof ROASTER_KINDS)[number];
