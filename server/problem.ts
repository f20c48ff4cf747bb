import type { ErrorRequestHandler, Response } from "express";
import { HttpProblem } from "./httpProblem";
import { diskProblem } from "./store/failures";

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
    const full = diskProblem(error);
    if (full) sendProblem(response, full);
    else if (error instanceof HttpProblem) sendProblem(response, error);
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
        // What others say of it may name files of this machine.
        (error as { status: number }).status === 404
          ? new HttpProblem(404, "route.unknown", "There is nothing at this address")
          : new HttpProblem((error as { status: number }).status, "request.bad", "The request cannot be read"),
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
