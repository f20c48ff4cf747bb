/** What could not be read of a typed line, and where: its column, from 1. */
export interface LineProblem {
  message: string;
  position?: number;
  hint?: string;
}

/** Characters shown before and behind the place of a problem. */
const BEFORE = 15;
const BEHIND = 12;

/** Problems of a typed line, each with its place. */
export function LineProblems({ text, problems, after }: { text: string; problems: LineProblem[]; after: string }) {
  const first = problems[0];
  if (!first) return null;
  return (
    <div className="line-problem" role="alert">
      {first.position !== undefined && (
        <pre aria-hidden="true">
          {text.slice(Math.max(0, first.position - BEFORE - 1), first.position + BEHIND)}
          {"\n"}
          {" ".repeat(Math.min(first.position - 1, BEFORE))}^
        </pre>
      )}
      {problems.slice(0, 4).map((p, i) => (
        <p key={i}>
          {p.message} <span className="small">{p.hint}</span>
        </p>
      ))}
      <p className="small">{after}</p>
    </div>
  );
}
