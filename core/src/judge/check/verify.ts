import { firstOf } from "../../base/list";
import { madeOf, type Steps } from "../../base/steps";
import { applyEdit, type Edit } from "../../song/edits";
import type { Song } from "../../song/schema";
import { createChecker, type Checker } from "./check";
import type { Finding, FindingPlace, Fix, Severity } from "./rule";

/** A fix, tried. */
export interface TriedFix {
  fix: Fix;
  /** It can be made, and what it is offered for is gone. */
  mends: boolean;
  /** What it would bring that is as bad as what it mends; null where it brings nothing. */
  brings: string | null;
}

const RANK: Record<Severity, number> = { fault: 0, warning: 1, note: 2 };

/** What no fix may take from a chord or ask of a player, however lightly the school weighs it. */
const NEVER = new Set(["missing-tone", "written-bass", "other-chord", "out-of-range", "reach", "polyphony"]);

/** Places of findings by what they are about, apart from the pitches, which a fix changes. */
function places(findings: readonly Finding[], least: number): Map<string, string> {
  const out = new Map<string, string>();
  for (const f of findings)
    if (f.waived === undefined && (RANK[f.severity] <= least || NEVER.has(f.rule)))
      for (const p of f.places) out.set(`${f.rule}|${[...p.parts].sort().join()}|${p.tick}`, p.message);
  return out;
}

type Place = Pick<FindingPlace, "tick" | "duration" | "parts" | "notes">;

const partsOf = (p: Place): string => [...p.parts].sort().join();

/** Whether two places of one rule are one fault: they meet in time, and are of the same parts. */
const isSame = (a: Place, b: Place): boolean =>
  a.tick < b.tick + Math.max(1, b.duration) && b.tick < a.tick + Math.max(1, a.duration) && partsOf(a) === partsOf(b);

/**
 * Tries fixes of a finding: whether each mends what it is offered for, and whether it brings anything as bad, or as bad
 * as is said. `ids` are the places they are for.
 */
export function tryFixes(
  song: Song,
  finding: Finding,
  {
    fixes,
    ids,
    checker = createChecker(),
    worst = finding.severity,
  }: { fixes: readonly Fix[]; ids: readonly string[]; checker?: Checker | undefined; worst?: Severity | undefined },
): TriedFix[] {
  const { section } = finding.where;
  const least = RANK[worst];
  const before = places(checker.bare(song, section), least);
  const wanted = new Set(ids);
  const meant = finding.places.filter((p) => wanted.has(p.id));
  return fixes.map((fix): TriedFix => {
    const after = applyEdit(song, fix.edit);
    if (!after.ok) return { fix, mends: false, brings: null };
    const now = checker.bare(after.value.song, section);
    const left = now.filter((f) => f.rule === finding.rule).flatMap((f) => f.places);
    const added = [...places(now, least)].find(([about]) => !before.has(about));
    return { fix, mends: !meant.some((p) => left.some((l) => isSame(p, l))), brings: added ? added[1] : null };
  });
}

/** The fixes of a place that mend it and bring nothing as bad, in their order. */
export const verifiedFixes = (
  song: Song,
  finding: Finding,
  place: FindingPlace,
  { checker, worst }: { checker?: Checker | undefined; worst?: Severity | undefined } = {},
): Fix[] =>
  tryFixes(song, finding, { fixes: place.fixes, ids: [place.id], checker, worst }).flatMap((t) =>
    t.mends && t.brings === null ? [t.fix] : [],
  );

/** One step of mending what is safe: which place it mends, and how. */
export interface SafeStep {
  finding: string;
  rule: string;
  place: FindingPlace;
  fix: Fix;
}

/**
 * What can be mended without a doubt: every step mends its place and brings no fault and no warning, in the song as the
 * steps before it left it.
 */
export interface SafeFixes {
  steps: SafeStep[];
  /** All steps as one edit; null where nothing can be mended. */
  edit: Edit | null;
  /** Places of the findings that are left as they are. */
  left: number;
}

/** Whether an edit gives the tune other notes: that is for its composer to say. Notes that end earlier stay its own. */
function rewritesTune(song: Song, edit: Edit): boolean {
  if (edit.do === "all") return edit.edits.some((e) => rewritesTune(song, e));
  if (edit.do === "inPass") return rewritesTune(song, edit.edit);
  if (edit.do !== "changeNotes" && edit.do !== "removeNotes" && edit.do !== "setNotes") return false;
  if (song.parts.find((p) => p.id === edit.part)?.role !== "melody") return false;
  return edit.do !== "changeNotes" || edit.notes.some((n) => n.pitch !== undefined || n.start !== undefined);
}

/** How far mending what is safe has come, in places. */
export interface SafeProgress {
  done: number;
  of: number;
}

/**
 * Mends the findings of a section that are named, the gravest first, as far as that is safe. Nothing that is left with
 * a reason is touched, and no tune is given other notes. Each place is tried once, so that twice the places take twice
 * the time.
 */
export function safeFixes(
  song: Song,
  sectionId: string,
  ids: readonly string[],
  checker: Checker = createChecker(),
): SafeFixes {
  return madeOf(safeSteps(song, sectionId, ids, checker));
}

/** The same place by place; stopped between two, what was found until then is what is mended. */
export function* safeSteps(
  song: Song,
  sectionId: string,
  ids: readonly string[],
  checker: Checker = createChecker(),
): Steps<SafeProgress, SafeFixes> {
  const wanted = new Set(ids);
  const chosen = checker.section(song, sectionId).filter((f) => wanted.has(f.id) && f.waived === undefined);
  const of = chosen.reduce((sum, f) => sum + f.places.length, 0);
  const steps: SafeStep[] = [];
  const edits: Edit[] = [];
  let now = song;
  let [left, done] = [0, 0];
  // Mending a fault is not safe where it brings a warning; mending a note is not where it brings another.
  const least = (f: Finding): Severity => (f.severity === "note" ? "note" : "warning");
  const current = (id: string) =>
    checker.section(now, sectionId).find((f) => f.waived === undefined && f.places.some((p) => p.id === id));
  const isThere = (id: string) => checker.bare(now, sectionId).some((f) => f.places.some((p) => p.id === id));
  const isSafe = (fix: Fix): boolean => !rewritesTune(song, fix.edit);
  const atOnce = (whole: Finding): Fix | undefined => {
    const ids = whole.places.map((p) => p.id);
    const tried = tryFixes(now, whole, { fixes: whole.forAll.filter(isSafe), ids, checker, worst: least(whole) });
    return tried.find((t) => t.mends && t.brings === null)?.fix;
  };
  const make = (found: Finding, place: FindingPlace, fix: Fix | undefined): boolean => {
    const after = fix && applyEdit(now, fix.edit);
    if (!fix || !after?.ok) return false;
    now = after.value.song;
    edits.push(fix.edit);
    steps.push({ finding: found.id, rule: found.rule, place, fix });
    return true;
  };
  const made = (): SafeFixes => ({
    steps,
    edit: edits.length ? { do: "all", label: "mend what is safe", edits } : null,
    left: left + of - done,
  });
  for (const { places: wantedPlaces } of chosen) {
    if ((yield { done, of }) === false) return made();
    // What mends all of it at once is one step.
    const whole = current(firstOf(wantedPlaces).id);
    if (whole && make(whole, firstOf(whole.places), atOnce(whole))) {
      done += wantedPlaces.length;
      continue;
    }
    for (const { id } of wantedPlaces) {
      if ((yield { done, of }) === false) return made();
      done++;
      // As it stands by now: an earlier step may have mended it, or changed the notes that its fix speaks of.
      if (!isThere(id)) continue;
      const found = current(id);
      const place = found?.places.find((p) => p.id === id);
      if (!found || !place) continue;
      const safe = { ...place, fixes: place.fixes.filter(isSafe) };
      if (!make(found, place, verifiedFixes(now, found, safe, { checker, worst: least(found) })[0])) left++;
    }
  }
  return made();
}
