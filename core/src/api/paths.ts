/* Which address of a list a path is that somebody puts together. */

/** An address with anything in the place of its parts: `/api/lots/:code` is `/api/lots/${string}`. */
type Filled<Url> = Url extends `${infer Head}/:${infer Rest}`
  ? Rest extends `${string}/${infer Tail}`
    ? `${Head}/${string}/${Filled<Tail>}`
    : `${Head}/${string}`
  : Url;

/** A path without what is asked after it. */
export type WithoutQuery<Path extends string> = Path extends `${infer Url}?${string}` ? Url : Path;

type Same<List, Path> = {
  [Url in keyof List]: Path extends Filled<Url> ? (Filled<Url> extends Path ? Url : never) : never;
}[keyof List];
type Fitting<List, Path> = { [Url in keyof List]: Path extends Filled<Url> ? Url : never }[keyof List];

/** Those of a list that a path is: by name, else with just its parts filled in, else what fits. */
export type Listed<List, Path> = Path extends keyof List
  ? Path
  : [Same<List, Path>] extends [never]
    ? Fitting<List, Path>
    : Same<List, Path>;
