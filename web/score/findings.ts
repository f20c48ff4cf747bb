import { useMemo, useRef } from "react";
import { type Finding, Plain } from "../../core/src/index";

/** A finding with its number in the list. */
export interface Numbered {
  finding: Finding;
  number: number;
}

/** The findings that are about a part, and are not left as they are. */
export const numbered = (findings: readonly Finding[], part: string): Numbered[] =>
  findings.flatMap((finding, i) =>
    finding.waived !== undefined || !finding.where.parts.includes(part) ? [] : [{ finding, number: i + 1 }],
  );

/** Numbers of the findings that stand on notes; of several on one note the first. */
export function numbersOf(found: readonly Numbered[]): Map<string, number> {
  const numbers = new Map<string, number>();
  for (const { finding, number } of found)
    for (const n of finding.where.notes) if (!numbers.has(n)) numbers.set(n, number);
  return numbers;
}

const NONE: readonly Numbered[] = [];

/** The findings about each part; a list stays the same until one of its findings or their numbers change. */
export function useNumbered(
  findings: readonly Finding[],
  parts: readonly string[],
): (part: string) => readonly Numbered[] {
  const last = useRef(new Map<string, readonly Numbered[]>());
  const lists = useMemo(
    () => new Map(parts.map((p) => [p, Plain.keptItems(last.current.get(p) ?? NONE, numbered(findings, p))])),
    [findings, parts],
  );
  last.current = lists;
  return (part) => lists.get(part) ?? NONE;
}
