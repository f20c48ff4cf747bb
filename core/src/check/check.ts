import { sectionKey, sectionMeter } from "../song/document";
import type { Profile, Section, Song } from "../song/schema";
import { sliceSong, type Sliced } from "../slice/slices";
import type { Finding, RawFinding, Rule, Severity } from "./rule";
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

export interface Checker {
  /** Findings of one section, worst first. Rules whose inputs did not change since the last call are not run again. */
  section(song: Song, sectionId: string): Finding[];
  /** The slices of a section, kept while the song stays the same. */
  sliced(song: Song, sectionId: string): Sliced;
}

/** A checker that remembers the findings of each rule by what the rule read. */
export function createChecker(): Checker {
  const memory = new Map<string, { inputs: readonly unknown[]; raw: RawFinding[] }>();
  let last: { song: Song; section: string; sliced: Sliced } | null = null;
  const sliced = (song: Song, id: string): Sliced => {
    if (last?.song !== song || last.section !== id) last = { song, section: id, sliced: sliceSong(song, { section: id, harmony: true }) };
    return last.sliced;
  };
  return {
    sliced,
    section(song, id) {
      const section = song.sections.find((s) => s.id === id);
      if (!section) return [];
      return RULES.flatMap((rule) => {
        const severity = rule.severity[song.profile];
        if (severity === "off") return [];
        const inputs = inputsOf(rule, song, section);
        const known = memory.get(`${id}:${rule.id}`);
        let raw = known && known.inputs.length === inputs.length && known.inputs.every((x, i) => x === inputs[i]) ? known.raw : null;
        if (!raw) {
          raw = rule.find({ song, section, sliced: sliced(song, id), meter: sectionMeter(song, section), key: sectionKey(song, section) });
          memory.set(`${id}:${rule.id}`, { inputs, raw });
        }
        return raw.map((f) => toFinding(f, rule, severity, section, song));
      }).sort(
        (a, b) =>
          Number(a.waived !== undefined) - Number(b.waived !== undefined) ||
          RANK[a.severity] - RANK[b.severity] ||
          a.where.tick - b.where.tick,
      );
    },
  };
}

/** Everything in the song a rule's result can depend on, by identity. */
function inputsOf(rule: Rule, song: Song, section: Section): unknown[] {
  const parts = song.parts.filter((p) => rule.reads.includes(p.role));
  // Which voice is on top depends on every pitched part, but only on those the rule names.
  return [
    section.chords,
    section.bars,
    section.key ?? song.key,
    section.meter ?? song.meter,
    song.instruments,
    rule.reads.includes("groove") ? section.groove : null,
    ...parts,
    ...parts.map((p) => section.notes[p.id]),
  ];
}

function toFinding(raw: RawFinding, rule: Rule, severity: Severity, section: Section, song: Song): Finding {
  const id = `${rule.id}:${section.id}:${raw.notes.join("+")}:${raw.tick}`;
  const waived = song.waivers.find((w) => w.finding === id)?.reason;
  return {
    id,
    rule: rule.id,
    severity,
    where: { section: section.id, tick: raw.tick, duration: raw.duration ?? 0, parts: raw.parts, notes: raw.notes },
    message: raw.message,
    measure: raw.measure,
    source: rule.source,
    fixes: raw.fixes,
    ...(waived !== undefined ? { waived } : {}),
  };
}

/** All findings of a song, section by section. `profile` overrides the song's own. */
export function checkSong(song: Song, { profile }: { profile?: Profile } = {}): Finding[] {
  const judged = profile ? { ...song, profile } : song;
  const checker = createChecker();
  return judged.sections.flatMap((s) => checker.section(judged, s.id));
}
