import Alert from "react-bootstrap/Alert";
import type { Problem } from "../../core/src/index";

/** Why something could not be done, and what to try. */
export function Refused({ problem }: { problem: Problem }) {
  return (
    <Alert bsPrefix="problem" variant="" transition={false}>
      {problem.message}. {problem.hint}
    </Alert>
  );
}
