import type { Problem } from "../../core/src/index";

/** Why something could not be done, and what to try. */
export function Refused({ problem }: { problem: Problem }) {
  return (
    <p className="problem" role="alert">
      {problem.message}. {problem.hint}
    </p>
  );
}
