import { applyEdit } from "../song/edits";
import type { Song } from "../song/schema";
import { createChecker, type Checker } from "./check";
import type { Finding, Fix, Severity } from "./rule";

/** A fix, tried. */
export interface TriedFix {
  fix: Fix;
  /** It can be made, and what it is offered for is gone. */
  mends: boolean;
  /** What it would bring that is as bad as what it mends; null where it brings nothing. */
  brings: string | null;
}

const RANK: Record<Severity, number> = { fault: 0, warning: 1, note: 2 };

/** Places of findings by what they are about, apart from the pitches, which a fix changes. */
function places(findings: readonly Finding[], least: number): Map<string, string> {
  const out = new Map<string, string>();
  for (const f of findings)
    if (f.waived === undefined && RANK[f.severity] <= least)
      for (const p of f.places) out.set(`${f.rule}|${[...p.parts].sort().join()}|${p.tick}`, p.message);
  return out;
}

/** Tries fixes of a finding: whether each mends what it is offered for, and whether it brings anything as bad. `ids` are the places they are for. */
export function tryFixes(
  song: Song,
  finding: Finding,
  fixes: readonly Fix[],
  ids: readonly string[],
  checker: Checker = createChecker(),
): TriedFix[] {
  const { section } = finding.where;
  const least = RANK[finding.severity];
  const before = places(checker.section(song, section), least);
  return fixes.map((fix): TriedFix => {
    const after = applyEdit(song, fix.edit);
    if (!after.ok) return { fix, mends: false, brings: null };
    const now = checker.section(after.value.song, section);
    const left = new Set(now.flatMap((f) => f.places.map((p) => p.id)));
    const added = [...places(now, least)].find(([about]) => !before.has(about));
    return { fix, mends: !ids.some((id) => left.has(id)), brings: added ? added[1] : null };
  });
}

/** The fixes of a place that mend it and bring nothing as bad, in their order. */
export const verifiedFixes = (song: Song, finding: Finding, place: Finding["places"][number], checker?: Checker): Fix[] =>
  tryFixes(song, finding, place.fixes, [place.id], checker).flatMap((t) => (t.mends && t.brings === null ? [t.fix] : []));
