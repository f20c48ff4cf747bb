import { sectionKey, sectionMeter, sectionOf } from "../song/document";
import { aboutText, covers, matterId } from "../song/matter";
import type { Edit } from "../song/edits";
import { sectionPlace } from "../song/place";
import type { Matter, Profile, Song } from "../song/schema";
import { notesAt, slicesAt } from "../facts/facts";
import { createMemory, type Fact, type Memory, type Reader } from "../facts/memory";
import type { CheckContext, Finding, RawFinding, Severity } from "./rule";
import { RULES } from "./rules";

export const PROFILE_WORDS: Record<Profile, { title: string; assumes: string }> = {
  chorale: { title: "Chorale", assumes: "Independent voices: parallel fifths and octaves are faults, notes outside the chord resolve." },
  band: {
    title: "Band and pop",
    assumes: "Bass and kick belong together; outer-voice parallels are only mentioned, octave doubling is orchestration.",
  },
  jazz: { title: "Jazz", assumes: "Guide tones and tensions matter; parallels do not, dissonance is mentioned rather than warned of." },
  loop: { title: "Loop and electronic", assumes: "Planing and power chords are the style; mud, clashes and missed accents matter." },
};

const RANK: Record<Severity, number> = { fault: 0, warning: 1, note: 2 };

/** What a rule finds in a section, with what each finding is about; severity and waivers are added when it is asked for. */
const foundBy: Fact<[rule: string, section: string], { raw: RawFinding; matter: Matter }[]> = {
  id: "findings",
  of(read, rule, sectionId) {
    const ctx = contextOf(read, sectionId);
    if (!ctx) return [];
    return RULES.find((r) => r.id === rule)!
      .find(ctx)
      .map((raw) => ({ raw, matter: { rule, sectionId, parts: raw.parts, about: aboutOf(read, sectionId, raw) } }));
  },
};

function contextOf(read: Reader, sectionId: string): CheckContext | null {
  const { song } = read;
  const section = sectionOf(song, sectionId);
  if (!section) return null;
  return {
    song,
    section,
    meter: sectionMeter(song, section),
    key: sectionKey(song, section),
    get sliced() {
      return read.get(slicesAt, sectionPlace(sectionId));
    },
  };
}

/** Place and pitches of a finding. */
function aboutOf(read: Reader, section: string, { tick, parts, notes }: RawFinding): string {
  const place = sectionPlace(section);
  const pitches = notes.flatMap((id) => {
    for (const part of parts)
      for (const reading of ["held", "played"] as const) {
        const note = read.get(notesAt, place, part, reading).find((n) => n.id === id);
        if (note) return [note.pitch];
      }
    return [];
  });
  return aboutText(tick, pitches);
}

export interface Checker {
  /** Findings of one section, worst first. Rules whose inputs did not change since the last call are not run again. */
  section(song: Song, sectionId: string): Finding[];
}

/** A checker that remembers what each rule found for as long as nothing that the rule read has changed. */
export const createChecker = (memory: Memory = createMemory()): Checker => ({
  section(song, id) {
    const read = memory.at(song);
    return RULES.flatMap((rule) => {
      const severity = rule.severity[song.profile];
      return severity === "off" ? [] : read.get(foundBy, rule.id, id).map((found) => toFinding(found, rule.source, severity, song));
    }).sort(
      (a, b) =>
        Number(a.waived !== undefined) - Number(b.waived !== undefined) ||
        RANK[a.severity] - RANK[b.severity] ||
        a.where.tick - b.where.tick,
    );
  },
});

/** Whether an edit would write into a part that echoes another one: it has no notes of its own. */
const writesEcho = (song: Song, edit: Edit): boolean =>
  edit.do === "all"
    ? edit.edits.some((e) => writesEcho(song, e))
    : (edit.do === "changeNotes" || edit.do === "removeNotes" || edit.do === "setNotes") &&
      song.parts.find((p) => p.id === edit.part)?.echoes !== undefined;

function toFinding({ raw, matter }: { raw: RawFinding; matter: Matter }, source: string, severity: Severity, song: Song): Finding {
  const waiver = song.waivers.find((w) => covers(w, matter));
  return {
    id: matterId(matter),
    rule: matter.rule,
    severity,
    where: { section: matter.sectionId!, tick: raw.tick, duration: raw.duration ?? 0, parts: raw.parts, notes: raw.notes },
    message: raw.message,
    amount: raw.amount,
    source,
    fixes: raw.fixes.filter((f) => !writesEcho(song, f.edit)),
    ...(waiver ? { waived: waiver.reason, waiver: waiver.id } : {}),
  };
}

/** All findings of a song, section by section. `profile` overrides the song's own. */
export function checkSong(song: Song, { profile }: { profile?: Profile } = {}): Finding[] {
  const judged = profile ? { ...song, profile } : song;
  const checker = createChecker();
  return judged.sections.flatMap((s) => checker.section(judged, s.id));
}
