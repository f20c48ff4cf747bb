import type { Finding } from "../../core/src/index";

/** Numbers of the findings that stand on the notes of a part. */
export function numbersOf(findings: readonly Finding[], part: string): Map<string, number> {
  const numbers = new Map<string, number>();
  findings.forEach((f, i) => {
    if (f.waived !== undefined || !f.where.parts.includes(part)) return;
    for (const n of f.where.notes) if (!numbers.has(n)) numbers.set(n, i + 1);
  });
  return numbers;
}
