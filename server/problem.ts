import type { ErrorRequestHandler, Response } from "express";

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

export function sendProblem(response: Response, problem: HttpProblem): void {
  response
    .status(problem.status)
    .type("application/problem+json")
    .send(
      JSON.stringify({
        type: "about:blank",
        title: problem.message,
        status: problem.status,
        code: problem.code,
        ...problem.more,
      }),
    );
}

/** Last handler: turns anything thrown into a problem; what is not expected is logged and hidden. */
export const problemHandler =
  (maxBody: string): ErrorRequestHandler =>
  (error: unknown, _request, response, next) => {
    if (response.headersSent) {
      next(error);
      return;
    }
    if (error instanceof HttpProblem) sendProblem(response, error);
    else if (isBodyError(error, "entity.too.large"))
      sendProblem(
        response,
        new HttpProblem(413, "body.large", `The request is larger than ${maxBody}`, { hint: "Split the song in two." }),
      );
    else if (isBodyError(error, "entity.parse.failed"))
      sendProblem(response, new HttpProblem(400, "body.json", `The request is not JSON: ${(error as Error).message}`));
    else if (typeof (error as { status?: unknown }).status === "number" && (error as { status: number }).status < 500)
      sendProblem(
        response,
        new HttpProblem((error as { status: number }).status, "request.bad", (error as Error).message),
      );
    else {
      console.error(error);
      sendProblem(
        response,
        new HttpProblem(500, "server.failed", "The server failed; nothing was changed", { hint: "Try again." }),
      );
    }
  };

const isBodyError = (error: unknown, type: string): boolean => (error as { type?: unknown } | null)?.type === type;
