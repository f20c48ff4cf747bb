import { parseNote } from "../../pitch/pitch";
import { QUARTER, type Meter, type Ticks } from "../../time/meter";
import type { EngravedChord } from "../../notation/engrave";
import type { NoteValue } from "../../notation/durations";
import { el, type Element } from "./xml";

const TYPES: Record<NoteValue, string> = { w: "whole", h: "half", q: "quarter", "8": "eighth", "16": "16th", "32": "32nd" };
const FLAGS: Record<NoteValue, number> = { w: 0, h: 0, q: 0, "8": 1, "16": 2, "32": 3 };

export interface Voice {
  number: number;
  staff: number | null;
  /** Octaves to lower what is read: under a clef with an eight the format wants what sounds. */
  octave: number;
  /** Verses by the id of the note that carries them. */
  lyrics: ReadonlyMap<string, readonly string[]>;
  /** Instruments of a percussion staff by drum. */
  drums: ReadonlyMap<string, string> | null;
}

/** Beam signs of each chord, level by level: what stands in one beat is joined, rests divide. */
export function beamsOf(bar: readonly EngravedChord[], meter: Meter): string[][] {
  const start = bar[0]?.start ?? 0;
  const beatOf = (c: EngravedChord) => meter.beats.findLastIndex((b) => b.start <= (c.start - start + meter.bar) % meter.bar);
  const out: string[][] = bar.map(() => []);
  for (let i = 0; i < bar.length;) {
    let j = i;
    const joins = (c: EngravedChord) => c.notes.length > 0 && FLAGS[c.value] > 0;
    if (!joins(bar[i]!)) {
      i++;
      continue;
    }
    while (j + 1 < bar.length && joins(bar[j + 1]!) && beatOf(bar[j + 1]!) === beatOf(bar[i]!)) j++;
    if (j > i)
      for (let k = i; k <= j; k++)
        for (let level = 1; level <= FLAGS[bar[k]!.value]; level++) {
          const before = k > i && FLAGS[bar[k - 1]!.value] >= level;
          const after = k < j && FLAGS[bar[k + 1]!.value] >= level;
          out[k]!.push(before && after ? "continue" : before ? "end" : after ? "begin" : k > i ? "backward hook" : "forward hook");
        }
    i = j + 1;
  }
  return out;
}

/** Whether a chord begins or ends the triplet of its beat. */
function tupletEnds(bar: readonly EngravedChord[], i: number): ("start" | "stop")[] {
  const c = bar[i]!;
  if (!c.triplet) return [];
  const beat = (x: EngravedChord) => Math.floor((x.start - bar[0]!.start) / QUARTER);
  const same = (x: EngravedChord | undefined) => x !== undefined && x.triplet && beat(x) === beat(c);
  return [...(same(bar[i - 1]) ? [] : ["start" as const]), ...(same(bar[i + 1]) ? [] : ["stop" as const])];
}

function pitch(name: string, octave: number): Element {
  const [, letters, number] = /^([A-G](?:bb|b|##|x|#)?)(-?\d+)$/.exec(name)!;
  const { alter } = parseNote(letters!)!;
  return el("pitch", [el("step", letters![0]), alter !== 0 && el("alter", alter), el("octave", Number(number) - octave)]);
}

/** Where a drum's note stands. */
const unpitched = (name: string): Element => el("unpitched", [el("display-step", name[0]), el("display-octave", name.slice(1))]);

/** A syllable: a hyphen at its end goes on, one at the end of the syllable before it joins. */
function lyric(text: string, verse: number, before: string | undefined): Element {
  const goesOn = text.endsWith("-");
  const joined = before?.endsWith("-") ?? false;
  const syllabic = goesOn ? (joined ? "middle" : "begin") : joined ? "end" : "single";
  return el("lyric", [el("syllabic", syllabic), el("text", text.replace(/-$/, ""))], { number: verse + 1 });
}

/** One bar of a voice. `held` are the pitches tied into it; it is left with those tied out of it. */
export function notesOf(bar: readonly EngravedChord[], meter: Meter, voice: Voice, held: Set<number>, sung: string[]): Element[] {
  const beams = beamsOf(bar, meter);
  return bar.flatMap((c, i): Element[] => {
    const full = bar.length === 1 && c.ticks === meter.bar && !c.notes.length;
    const rest = el("rest", [], full ? { measure: "yes" } : {});
    const heads = c.notes.length ? c.notes : [null];
    const made = heads.map((n, k) => {
      const stop = n !== null && held.has(n.midi);
      const ties = [...(stop ? ["stop"] : []), ...(n?.tied ? ["start"] : [])];
      const verses = (k === 0 && !stop && n && voice.lyrics.get(n.id)) || [];
      const notations = [
        ...ties.map((type) => el("tied", [], { type })),
        ...(k === 0 ? tupletEnds(bar, i).map((type) => el("tuplet", [], { type, bracket: beams[i]!.length ? "no" : "yes" })) : []),
        ...(k === 0 && c.articulation ? [el("articulations", [el(c.articulation)])] : []),
      ];
      const words = verses.flatMap((text, v) => {
        const before = sung[v];
        sung[v] = text;
        return text ? [lyric(text, v, before)] : [];
      });
      return el(
        "note",
        [
          k > 0 && el("chord"),
          n ? (voice.drums ? unpitched(n.pitch) : pitch(n.pitch, voice.octave)) : rest,
          el("duration", c.ticks),
          ...ties.map((type) => el("tie", [], { type })),
          n && voice.drums && el("instrument", [], { id: voice.drums.get(n.id.split(":")[0]!)! }),
          el("voice", voice.number),
          !full && el("type", TYPES[c.value]),
          c.dots > 0 && el("dot"),
          c.triplet && el("time-modification", [el("actual-notes", 3), el("normal-notes", 2)]),
          n?.head !== undefined && el("notehead", n.head),
          voice.staff !== null && el("staff", voice.staff),
          ...(k === 0 ? beams[i]!.map((sign, level) => el("beam", sign, { number: level + 1 })) : []),
          notations.length > 0 && el("notations", notations),
          ...words,
        ],
        c.hidden ? { "print-object": "no" } : {},
      );
    });
    held.clear();
    for (const n of c.notes) if (n.tied) held.add(n.midi);
    return made;
  });
}

/** Goes back in time, for another voice. */
export const backup = (ticks: Ticks): Element => el("backup", [el("duration", ticks)]);
