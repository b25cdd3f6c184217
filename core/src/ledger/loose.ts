/**
 * So many steps at the end of the order of the work are gone through again after one that was entered late, and at most
 * three times as many: what is older is settled, and looked at again only where it was changed itself.
 */
export const LOOSE = 600;
