/** With a capital first letter. */
export const capital = (text: string): string => (text[0]?.toUpperCase() ?? '') + text.slice(1);
