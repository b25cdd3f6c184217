/** The release, as the changelog counts them. */
export const VERSION = '0.31.0';
