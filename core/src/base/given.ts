/** An object without the entries that may be undefined, and those again as entries that may be missing. */
type Given<T> = { [K in keyof T as undefined extends T[K] ? never : K]: T[K] } & {
  [K in keyof T as undefined extends T[K] ? K : never]?: Exclude<T[K], undefined>;
};

/** An object without what is undefined in it. `given({ a: 1, b: undefined })` is `{ a: 1 }`. */
export const given = <T extends object>(object: T): Given<T> =>
  Object.fromEntries(Object.entries(object).filter(([, value]) => value !== undefined)) as Given<T>;
