import { firstOf, sure } from "../../base/list";
import { byId } from "../../base/once";
import { counted } from "../../theory/words/english";
import { passOf, sectionOf } from "../../song/document";
import { aboutText, covers, matterId } from "../../song/matter";
import type { Edit } from "../../song/edits";
import { passView } from "../../song/passView";
import { passPlace, sectionPlace } from "../../song/place";
import type { Matter, Profile, Song, Waiver } from "../../song/schema";
import { notesAt } from "../../hear/sounding";
import { createMemory, type Fact, type Memory, type Reader } from "../../facts/memory";
import { noticing, joinedWeight } from "./rank";
import { contextOf } from "./context";
import { ifNamed } from "./named";
import type { Finding, FindingPlace, Fix, RawFinding, Rule, Severity } from "./rule";
import { RULES } from "./rules";

export const PROFILE_WORDS: Record<Profile, { title: string; assumes: string }> = {
  chorale: {
    title: "Chorale",
    assumes: "Independent voices: parallel fifths and octaves are faults, notes outside the chord resolve.",
  },
  band: {
    title: "Band and pop",
    assumes:
      "Bass and kick belong together; outer-voice parallels are only mentioned, octave doubling is orchestration.",
  },
  jazz: {
    title: "Jazz",
    assumes: "Guide tones and tensions matter; parallels do not, dissonance is mentioned rather than warned of.",
  },
  loop: {
    title: "Loop and electronic",
    assumes: "Planing and power chords are the style; mud, clashes and missed accents matter.",
  },
};

const RANK: Record<Severity, number> = { fault: 0, warning: 1, note: 2 };

interface Found {
  raw: RawFinding;
  matter: Matter;
  weight: number;
}

/**
 * What a rule finds in a section, place by place, with what each is about; severity and waivers are added when it is
 * asked for.
 */
const foundBy: Fact<[rule: string, section: string, how: "ways" | "bare"], Found[]> = {
  id: "findings",
  of(read, ruleId, sectionId, how) {
    const ctx = contextOf(read, sectionId, { rule: ruleId, bare: how === "bare" });
    if (!ctx) return [];
    const rule = sure(RULES.find((r) => r.id === ruleId));
    const all = rule.find(ctx);
    if (!all.length) return [];
    const weightOf = noticing(ctx);
    return all
      .map((told) => (rule.family === "vertical" ? ifNamed(ctx, told) : told))
      .map((raw) => ({
        raw,
        matter: {
          rule: ruleId,
          sectionId,
          parts: raw.parts,
          about: aboutOf(read, sectionId, raw),
          duration: raw.duration ?? 0,
        },
        weight: weightOf(raw) * (rule.heard ?? 1),
      }));
  },
};

/** Place and pitches of a finding. */
function aboutOf(read: Reader, section: string, { tick, parts, notes, pass }: RawFinding): string {
  const place = pass === undefined ? sectionPlace(section) : passPlace(read.song, pass);
  const pitches = notes.flatMap((id) => {
    for (const part of parts)
      for (const reading of ["held", "played"] as const) {
        const note = byId(read.get(notesAt, place, part, reading)).get(id);
        if (note) return [note.pitch];
      }
    return [];
  });
  return aboutText(tick, pitches);
}

export interface Checker {
  /** Findings of one section, worst first. Rules whose inputs did not change since the last call are not run again. */
  section(song: Song, sectionId: string): Finding[];
  /** The same without the ways out that have to be weighed: what there is, to see what an edit would bring. */
  bare(song: Song, sectionId: string): Finding[];
}

/** How grave a rule is in a song: as the user weighs it, else as the school does. */
export const severityOf = (rule: Rule, song: Song): Severity | "off" =>
  song.severities?.[rule.id] ?? rule.severity[song.profile];

/** A checker that remembers what each rule found for as long as nothing that the rule read has changed. */
export function createChecker(memory: Memory = createMemory()): Checker {
  const findings = (song: Song, id: string, how: "ways" | "bare"): Finding[] => {
    const read = memory.at(song);
    return RULES.flatMap((rule) => {
      const severity = severityOf(rule, song);
      return severity === "off" ? [] : grouped(read.get(foundBy, rule.id, id, how), rule, severity, song);
    }).sort(byRank);
  };
  return { section: (song, id) => findings(song, id, "ways"), bare: (song, id) => findings(song, id, "bare") };
}

/** What is left with a reason comes last, then by severity, what a listener notices most, and place. */
const byRank = (a: Finding, b: Finding): number =>
  Number(a.waived !== undefined) - Number(b.waived !== undefined) ||
  RANK[a.severity] - RANK[b.severity] ||
  b.weight - a.weight ||
  a.where.tick - b.where.tick;

/** The same fault of the same parts is one finding; what a waiver lets stand is one of its own. */
function grouped(found: readonly Found[], rule: Rule, severity: Severity, song: Song): Finding[] {
  const groups = new Map<string, { found: Found[]; waiver: Waiver | undefined; grade: Severity }>();
  for (const f of found) {
    const waiver = song.waivers.find((w) => covers(w, f.matter));
    const grade = lowered(severity, f.raw.lighter ?? 0);
    if (grade === null) continue;
    const id = `${waiver?.id ?? ""}|${[...f.raw.parts].sort().join()}`;
    const group = groups.get(id);
    if (!group) groups.set(id, { found: [f], waiver, grade });
    else {
      group.found.push(f);
      // As grave as the gravest of its places.
      if (RANK[grade] < RANK[group.grade]) group.grade = grade;
    }
  }
  return [...groups.values()].map((g) => toFinding(g.found, rule, g.grade, { song, waiver: g.waiver }));
}

/** What happens at four fifths of its chances or more, and so often at least, is a habit (common practice). */
const HABIT = 0.8;
const OFTEN = 8;

/** How often something happened of how many times it could, where that is nearly always; null elsewhere. */
function habitOf(found: readonly Found[]): { times: number; chances: number } | null {
  const chances = Math.max(0, ...found.map((f) => f.raw.chances ?? 0));
  return chances && found.length >= OFTEN && found.length >= HABIT * chances
    ? { times: found.length, chances: Math.max(chances, found.length) }
    : null;
}

const GRADES: readonly Severity[] = ["fault", "warning", "note"];

/** A severity so many degrees lighter; null where nothing is left of it. */
const lowered = (severity: Severity, by: number): Severity | null => GRADES[GRADES.indexOf(severity) + by] ?? null;

/** Whether an edit would write into a part that echoes another one: it has no notes of its own. */
const writesEcho = (song: Song, edit: Edit): boolean =>
  edit.do === "all"
    ? edit.edits.some((e) => writesEcho(song, e))
    : (edit.do === "changeNotes" || edit.do === "removeNotes" || edit.do === "setNotes") &&
      song.parts.find((p) => p.id === edit.part)?.echoes !== undefined;

function toFinding(
  found: readonly Found[],
  rule: Rule,
  severity: Severity,
  { song, waiver }: { song: Song; waiver: Waiver | undefined },
): Finding {
  const sorted = [...found].sort((a, b) => a.raw.tick - b.raw.tick);
  const places = sorted.map(({ raw, matter }): FindingPlace => ({
    id: matterId(matter),
    tick: raw.tick,
    duration: raw.duration ?? 0,
    parts: raw.parts,
    notes: raw.notes,
    message: raw.message,
    amount: raw.amount,
    fixes: raw.fixes.filter((f) => !writesEcho(song, f.edit)),
  }));
  const [first] = places;
  const { matter } = firstOf(sorted);
  const several = places.length > 1;
  const forAll = several ? [firstOf(sorted).raw.whole ?? [], allAtOnce(places)].flat() : [];
  const habit = waiver ? null : habitOf(found);
  const said = habit
    ? `${sure(first).message} So it is ${habit.times} of ${habit.chances} times: a habit.`
    : sure(first).message;
  return {
    id: several ? matterId({ ...matter, about: "" }) : sure(first).id,
    rule: rule.id,
    family: rule.family,
    severity: habit ? "note" : severity,
    where: {
      section: sure(matter.sectionId),
      tick: sure(first).tick,
      duration: sure(first).duration,
      parts: sure(first).parts,
      notes: [...new Set(places.flatMap((p) => p.notes))],
    },
    places,
    message: said,
    amount: habitAmount(habit) ?? (several ? counted(places.length, "place") : sure(first).amount),
    ...(habit ? { habit: { ...habit, otherwise: severity } } : {}),
    source: rule.source,
    fixes: [...sure(first).fixes, ...forAll],
    forAll,
    weight: joinedWeight(found.map((f) => f.weight)),
    ...(waiver ? { waived: waiver.reason, waiver: waiver.id } : {}),
  };
}

/** Findings with what is a habit judged as what happens once, the gravest first. */
export const habitsJudged = (findings: readonly Finding[]): Finding[] =>
  findings
    .map(({ habit, ...f }) =>
      habit
        ? {
            ...f,
            severity: habit.otherwise,
            message: firstOf(f.places).message,
            amount: counted(f.places.length, "place"),
          }
        : f,
    )
    .sort(byRank);

const habitAmount = (habit: { times: number; chances: number } | null): string | null =>
  habit ? `${habit.times} of ${habit.chances}` : null;

/** Notes an edit changes or removes. */
const touched = (edit: Edit): string[] => {
  if (edit.do === "all") return edit.edits.flatMap(touched);
  if (edit.do === "changeNotes") return edit.notes.map((n) => n.id);
  if (edit.do === "removeNotes") return edit.notes;
  return [];
};

/**
 * The first fix of every place as one edit, where every place has one. A note is changed once: by the place that comes
 * first.
 */
function allAtOnce(places: readonly FindingPlace[]): Fix[] {
  const firsts = places.flatMap((p) => p.fixes[0] ?? []);
  if (firsts.length < places.length) return [];
  const edits: Edit[] = [];
  const seen = new Set<string>();
  for (const { edit } of firsts) {
    const text = JSON.stringify(edit);
    const notes = touched(edit);
    if (seen.has(text) || notes.some((n) => seen.has(n))) continue;
    for (const id of [text, ...notes]) seen.add(id);
    edits.push(edit);
  }
  // What mends one place mends all of them.
  if (edits.length < 2) return [];
  const labels = new Set(places.map((p) => firstOf(p.fixes).label));
  const how = labels.size === 1 ? firstOf([...labels]) : `${firstOf(firstOf(places).fixes).label}, and alike`;
  return [{ label: `All ${places.length} places: ${how}`, edit: { do: "all", label: "fix all places", edits } }];
}

/**
 * What is judged, by which school (the song's own where none is named): all sections, one, or one pass of the form as
 * it plays.
 */
export interface CheckScope {
  profile?: Profile;
  section?: string;
  pass?: string;
}

/**
 * The findings of a song, of one section, or of one pass with its own bars, key and ways of playing: most noticed
 * first. The ways out of a pass are edits of its section as the pass plays it: put `{ do: "inPass", pass, here: true,
 * edit }` around one.
 * @throws RangeError where there is no such section or pass.
 */
export function checkSong(song: Song, { profile, section, pass }: CheckScope = {}): Finding[] {
  const judged = profile ? { ...song, profile } : song;
  const inForm = pass === undefined ? undefined : passOf(judged, pass);
  if (pass !== undefined && !inForm) throw new RangeError(`There is no pass ${pass} in the form`);
  const one = inForm?.sectionId ?? section;
  if (one !== undefined && !sectionOf(judged, one)) throw new RangeError(`There is no section ${one} in the song`);
  const checker = createChecker();
  if (one !== undefined) return checker.section(inForm ? passView(judged, inForm.id, true) : judged, one);
  return judged.sections.flatMap((s) => checker.section(judged, s.id)).sort(byRank);
}
