/** An error with everything a client needs to tell the user (RFC 9457, application/problem+json). */
export class HttpProblem extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly more: { path?: string; hint?: string; [key: string]: unknown } = {},
  ) {
    super(message);
  }
}
