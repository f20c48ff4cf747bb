/** Errors are results: every fallible function of the core returns one of these and never throws for bad input. */
export interface Problem {
  /** Stable machine-readable name of the error. */
  code: string;
  /** One sentence naming what is wrong and where. */
  message: string;
  /** 1-based column in the text that was read, when there is one. */
  position?: number;
  /** What the user could write instead. */
  hint?: string;
}

export type Result<T> = { ok: true; value: T } | { ok: false; error: Problem };

export const ok = <T>(value: T): Result<T> => ({ ok: true, value });

export const fail = (
  code: string,
  message: string,
  more: Omit<Problem, "code" | "message"> = {},
): { ok: false; error: Problem } => ({
  ok: false,
  error: { code, message, ...more },
});

/** The value, or a thrown Error: for data that is known to be good (tables, demo songs, tests). */
export function must<T>(result: Result<T>): T {
  if (!result.ok) throw new Error(result.error.message);
  return result.value;
}

/** The value of a result, or null where there is an error, for those who have another way then. */
export const orNull = <T>(result: Result<T>): T | null => (result.ok ? result.value : null);
