/** A part of an address by its name; empty where it is not there. */
export function param(params: unknown, name: string): string {
  const value = (params as Record<string, unknown>)[name];
  return typeof value === 'string' ? value : '';
}
