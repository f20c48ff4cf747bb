import { nth, sure } from "../../src/base/list";
import { applyEdit } from "../../src/song/edits";
import { checkSong } from "../../src/judge/check/check";
import { must } from "../../src/base/result";
import { RULES } from "../../src/judge/check/rules";
import { transposeSong } from "../../src/song/transposeSong";
import type { Profile } from "../../src/song/schema/playing";
import type { Song } from "../../src/song/schema/song";
import { random } from "../../src/base/random";
import { BAND_INJECTORS } from "./bandInjectors";
import { songOf, type Jotted } from "./bandSong";
import { counts, type Tally } from "./putFaults";

const DRUMS = { kick: "X.......X.......", snare: "....X.......X...", closedHat: "o.o.o.o.o.o.o.o." };
const KEYS = { C: "E3 G3 C4", Am: "E3 A3 C4", F: "F3 A3 C4", G: "D3 G3 B3", Dm: "F3 A3 D4", G7: "F3 G3 B3" };

/** A band that plays without a fault: two sections of eight bars. */
const CLEAN: Jotted = {
  title: "Clean",
  key: "C major",
  tempo: 96,
  profile: "band",
  parts: {
    Voice: ["melody", "mezzo"],
    Pipe: ["counter", "flute"],
    Piano: ["chords", "piano"],
    Guitar: ["chords", "guitar"],
    Bass: ["bass", "bassGuitar"],
  },
  sections: {
    Verse: {
      line: "| C | Am | F | G | C | Am | F | G |",
      parts: {
        Voice:
          "E4 q F e G e E q r | C4 q D e E e C q r | F4 q G e A e F q r | D4 q E e F e D q r | G4 q F e E e G " +
          "q r | E4 q D e C e E q r | A4 q G e F e A q r | B4 q A e G e B q r",
        Piano: { layouts: KEYS, rhythm: "x-------x-------", velocity: 60 },
        Bass: { low: "E1", steps: "R-------R-----5-" },
      },
      drums: DRUMS,
    },
    Chorus: {
      line: "| F | C | Dm | G7 | F | C | G | C |",
      parts: {
        Voice:
          "C5 q A A r | C5 q G G r | D5 q A A r | D5 q B B r | A4 q C5 C r | G4 q C5 C r | B4 q D5 D r | C5 q G G r",
        Pipe: "r w | r h. G5 e E | r w | r h. F5 e D | r w | r h. E5 e C | r w | r h. G5 e E",
        Piano: { layouts: KEYS, rhythm: "x---....x---....", velocity: 64 },
        Bass: { low: "E1", steps: "R-----5-R---5---" },
      },
      drums: { ...DRUMS, kick: "X.....o.X......." },
    },
  },
  form: ["Verse", "Chorus", "Verse", "Chorus"],
  marks: [],
};

/** The clean band in another key, judged by a school. */
export const cleanBand = (semitones: number, profile: Profile): Song => {
  const song = { ...songOf(CLEAN), profile };
  return semitones ? must(applyEdit(song, must(transposeSong(song, { semitones })).edit)).song : song;
};

/** Keys in which every part of it lies well. */
export const BAND_KEYS = [0, 1, 2];

/** Puts faults into a clean band, by each school in turn, and looks for them; by rule. */
/** What says more about a fault where both would be right: a rub of a foreign note that is held, for one. */
const ALSO: Record<string, readonly string[]> = { clash: ["long-outside", "other-chord"] };

export function tallyBandFaults(count: number, seed: number, told?: (text: string) => void): Map<string, Tally> {
  const next = random(seed);
  const pick = (n: number) => Math.floor(next() * n);
  const rules = Object.keys(BAND_INJECTORS);
  const out = new Map<string, Tally>(rules.map((r) => [r, { put: 0, found: 0, right: 0, wrong: 0 }]));
  const bases = new Map<string, { song: Song; ids: Set<string> }>();
  for (let done = 0, tries = 0; done < count && tries < count * 20; tries++) {
    const rule = nth(rules, tries % rules.length);
    const { severity } = sure(RULES.find((r) => r.id === rule));
    const schools = (["band", "jazz", "loop"] as const).filter((p) => severity[p] !== "off");
    const profile = nth(schools, pick(schools.length));
    const by = nth(BAND_KEYS, pick(BAND_KEYS.length));
    const known = bases.get(`${by}:${profile}`);
    const song = known?.song ?? cleanBand(by, profile);
    const ids =
      known?.ids ??
      new Set(
        checkSong(song)
          .filter(counts)
          .flatMap((f) => f.places.map((p) => p.id)),
      );
    bases.set(`${by}:${profile}`, { song, ids });
    const section = nth(song.sections, pick(2)).id;
    const part = (name: string) => sure(song.parts.find((p) => p.name === name)).id;
    const put = sure(BAND_INJECTORS[rule])({
      song,
      pick,
      part,
      section,
      list: (name) => sure(song.sections.find((s) => s.id === section)).notes[part(name)] ?? [],
    });
    const tally = sure(out.get(rule));
    const places = put
      ? checkSong(put.song)
          .filter((f) => f.waived === undefined)
          .flatMap((f) => f.places.map((p) => ({ ...p, rule: f.rule, grave: counts(f) })))
      : [];
    if (!put) continue;
    done++;
    tally.put++;
    const touches = (p: { notes: string[]; parts: string[] }) =>
      (!put.notes && !put.parts) ||
      p.notes.some((n) => put.notes?.includes(n)) ||
      p.parts.some((x) => put.parts?.includes(x));
    if (places.some((p) => (p.rule === rule || ALSO[rule]?.includes(p.rule)) && touches(p))) tally.found++;
    else told?.(`missed ${rule} (${profile} ${by} ${section})`);
    for (const p of places.filter((x) => x.grave && !ids.has(x.id))) {
      if (touches(p)) tally.right++;
      else {
        tally.wrong++;
        told?.(`wrong ${p.rule} after ${rule}: ${p.message} (${profile} ${by})`);
      }
    }
  }
  return out;
}
