import { firstOf, nth, sure } from "../../base/list";
import { parseNote, type Midi } from "../../theory/pitch/pitch";
import { QUARTER, type Meter, type Ticks } from "../../theory/time/meter";
import type { NoteValue } from "../notation/durations";
import type { SungSyllable } from "../notation/marks";
import { staffStep, type Accidental, type EngravedChord, type EngravedNote } from "../notation/staff";
import type { TabMoment } from "../notation/tab";
import { el, type Element } from "./xml";

const TYPES: Record<NoteValue, string> = {
  w: "whole",
  h: "half",
  q: "quarter",
  "8": "eighth",
  "16": "16th",
  "32": "32nd",
};
const FLAGS: Record<NoteValue, number> = { w: 0, h: 0, q: 0, "8": 1, "16": 2, "32": 3 };

export interface Voice {
  number: number;
  staff: number | null;
  /** Octaves to lower what is read: under a clef with an eight or a line of octaves the format wants what sounds. */
  octave: number;
  /** Instruments of a percussion staff by drum. */
  drums: ReadonlyMap<string, string> | null;
  /** Strings and frets of each chord, on a staff of tablature with so many strings. */
  tab?: { strings: number; moments: readonly (TabMoment | null)[] };
}

/**
 * What goes on from one bar of a voice into the next: pitches that are tied, and whether a slide leads to the next
 * note.
 */
export interface Going {
  held: Set<number>;
  sliding: boolean;
}

/** Beam signs of each chord, level by level: what stands in one beat is joined, rests divide. */
export function beamsOf(bar: readonly EngravedChord[], meter: Meter): string[][] {
  const start = bar[0]?.start ?? 0;
  const beatOf = (c: EngravedChord) =>
    meter.beats.findLastIndex((b) => b.start <= (c.start - start + meter.bar) % meter.bar);
  const out: string[][] = bar.map(() => []);
  for (let i = 0; i < bar.length;) {
    let j = i;
    const joins = (c: EngravedChord) => c.notes.length > 0 && FLAGS[c.value] > 0;
    if (!joins(nth(bar, i))) {
      i++;
      continue;
    }
    while (j + 1 < bar.length && joins(nth(bar, j + 1)) && beatOf(nth(bar, j + 1)) === beatOf(nth(bar, i))) j++;
    if (j > i)
      for (let k = i; k <= j; k++)
        for (let level = 1; level <= FLAGS[nth(bar, k).value]; level++) {
          const before = k > i && FLAGS[nth(bar, k - 1).value] >= level;
          const after = k < j && FLAGS[nth(bar, k + 1).value] >= level;
          const beamOf = () => {
            if (before && after) return "continue";
            if (before) return "end";
            if (after) return "begin";
            if (k > i) return "backward hook";
            return "forward hook";
          };
          nth(out, k).push(beamOf());
        }
    i = j + 1;
  }
  return out;
}

/** Whether a chord begins or ends the triplet of its beat. */
function tupletEnds(bar: readonly EngravedChord[], i: number): ("start" | "stop")[] {
  const c = nth(bar, i);
  if (!c.triplet) return [];
  const beat = (x: EngravedChord) => Math.floor((x.start - firstOf(bar).start) / QUARTER);
  const same = (x: EngravedChord | undefined) => x !== undefined && x.triplet && beat(x) === beat(c);
  return [...(same(bar[i - 1]) ? [] : ["start" as const]), ...(same(bar[i + 1]) ? [] : ["stop" as const])];
}

function pitch(name: string, octave: number): Element {
  const [, letters, number] = sure(/^([A-G](?:bb|b|##|x|#)?)(-?\d+)$/.exec(name));
  const { alter } = sure(parseNote(sure(letters)));
  return el("pitch", [
    el("step", sure(letters)[0]),
    alter !== 0 && el("alter", alter),
    el("octave", Number(number) - octave),
  ]);
}

/** Where a drum's note stands. */
const unpitched = (name: string): Element =>
  el("unpitched", [el("display-step", name[0]), el("display-octave", name.slice(1))]);

/** A syllable, with the line that shows how long it is held. */
const lyric = ({ text, goesOn, joins, until }: SungSyllable, verse: number, tied: boolean): Element => {
  const syllabic = () => {
    if (goesOn) {
      if (joins) return "middle";
      return "begin";
    }
    if (joins) return "end";
    return "single";
  };
  return el(
    "lyric",
    [el("syllabic", syllabic()), el("text", text), !goesOn && (until !== null || tied) && el("extend")],
    { number: verse + 1 },
  );
};

const SIGNS: Record<number, string> = { [-2]: "flat-flat", [-1]: "flat", 0: "natural", 1: "sharp", 2: "double-sharp" };
const accidental = ({ alter, courtesy }: Accidental): Element =>
  el("accidental", SIGNS[alter] ?? "natural", courtesy ? { cautionary: "yes", parentheses: "yes" } : {});

/** A slide to the next note where that follows at once, else a fall or a rise into nothing. */
function slideOf(note: EngravedNote, joined: boolean): Element | null {
  if (note.slide === undefined) return null;
  if (joined) return el("slide", [], { type: "start", "line-type": "solid", number: 1 });
  return el("articulations", [el(staffStep(note.slide) < staffStep(note.pitch) ? "falloff" : "doit")]);
}

/**
 * One bar of a voice. `going` says what comes from the bar before, and is left with what goes on; `next` is the first
 * chord of the bar after.
 */
export function noteElements(
  bar: readonly EngravedChord[],
  meter: Meter,
  voice: Voice,
  { going, next = undefined }: { going: Going; next?: EngravedChord | undefined },
): Element[] {
  const beams = beamsOf(bar, meter);
  return bar.flatMap((c, i): Element[] => {
    const follows = Boolean((bar[i + 1] ?? next)?.notes.length);
    const at: Moment = {
      ...{ chord: c, voice, follows, held: new Set(going.held), beams: nth(beams, i) },
      full: bar.length === 1 && c.ticks === meter.bar && !c.notes.length,
      slid: going.sliding && c.notes.length > 0,
      tuplets: tupletEnds(bar, i),
      places: voice.tab?.moments[i]?.places ?? [],
    };
    going.held = new Set(c.notes.filter((n) => n.tied).map((n) => n.midi));
    if (c.notes.length) going.sliding = firstOf(c.notes).slide !== undefined && follows;
    const said = c.dynamic && !voice.tab ? [loudness(c.dynamic, voice.staff)] : [];
    const [lowest, ...others] = c.notes;
    if (!lowest) return [...said, silence(at)];
    return [...said, head(at, lowest, 0), ...others.map((n, k) => head(at, n, k + 1))];
  });
}

/** A chord or rest of a bar, and what is known of it there. */
interface Moment {
  chord: EngravedChord;
  voice: Voice;
  /** A rest that fills the bar. */
  full: boolean;
  /** A chord follows at once. */
  follows: boolean;
  /** Pitches that are tied from the chord before; whether a slide leads here. */
  held: ReadonlySet<Midi>;
  slid: boolean;
  beams: readonly string[];
  tuplets: readonly ("start" | "stop")[];
  /** Strings and frets of the notes, on tablature. */
  places: TabMoment["places"];
}

const SLIDE = { "line-type": "solid", number: 1 };
const tuplets = ({ tuplets, beams }: Moment): Element[] =>
  tuplets.map((type) => el("tuplet", [], { type, bracket: beams.length ? "no" : "yes" }));
const notated = (notations: Element[]) => notations.length > 0 && el("notations", notations);
const written = ({ chord, full }: Moment) => [!full && el("type", TYPES[chord.value]), chord.dots > 0 && el("dot")];
const triplet = ({ chord }: Moment) =>
  chord.triplet && el("time-modification", [el("actual-notes", 3), el("normal-notes", 2)]);
const onStaff = ({ voice, beams }: Moment, first: boolean) => [
  voice.staff !== null && el("staff", voice.staff),
  ...(first ? beams.map((sign, level) => el("beam", sign, { number: level + 1 })) : []),
];

function silence(at: Moment): Element {
  const { chord, voice, full } = at;
  return el(
    "note",
    [
      el("rest", [], full ? { measure: "yes" } : {}),
      el("duration", chord.ticks),
      el("voice", voice.number),
      ...written(at),
      triplet(at),
      ...onStaff(at, true),
      notated(tuplets(at)),
    ],
    chord.hidden || voice.tab ? { "print-object": "no" } : {},
  );
}

/** What is written over, under and beside a head; what holds for the whole chord stands at its first. */
function notationsOf(at: Moment, note: EngravedNote, k: number, ties: readonly string[]): Element[] {
  const { chord, voice, places } = at;
  const place = places[k];
  const slide = slideOf(note, at.follows);
  const ofChord = [
    ...(at.slid ? [el("slide", [], { type: "stop", ...SLIDE })] : []),
    ...(slide ? [slide] : []),
    ...tuplets(at),
  ];
  const fretted = place && [el("string", sure(voice.tab).strings - place.string), el("fret", place.fret)];
  const articulated = k === 0 && chord.articulation && !voice.tab;
  return [
    ...ties.map((type) => el("tied", [], { type })),
    ...(k === 0 ? ofChord : []),
    ...(fretted ? [el("technical", fretted)] : []),
    ...(articulated ? [el("articulations", [el(chord.articulation ?? "")])] : []),
  ];
}

/** Note `k` of a chord. */
function head(at: Moment, note: EngravedNote, k: number): Element {
  const { chord, voice } = at;
  const ties = [...(at.held.has(note.midi) ? ["stop"] : []), ...(note.tied ? ["start"] : [])];
  const words = k === 0 && !voice.tab ? (chord.words ?? []) : [];
  return el(
    "note",
    [
      k > 0 && el("chord"),
      voice.drums ? unpitched(note.pitch) : pitch(note.pitch, voice.octave),
      el("duration", chord.ticks),
      ...ties.map((type) => el("tie", [], { type })),
      note.drum !== undefined && el("instrument", [], { id: sure(voice.drums?.get(note.drum)) }),
      el("voice", voice.number),
      ...written(at),
      note.accidental !== undefined && !voice.tab && accidental(note.accidental),
      triplet(at),
      note.head !== undefined && el("notehead", note.head),
      ...onStaff(at, k === 0),
      notated(notationsOf(at, note, k, ties)),
      ...words.flatMap((syllable, v) => (syllable ? [lyric(syllable, v, firstOf(chord.notes).tied)] : [])),
    ],
    chord.hidden ? { "print-object": "no" } : {},
  );
}

const loudness = (dynamic: string, staff: number | null): Element =>
  el("direction", [el("direction-type", [el("dynamics", [el(dynamic)])]), staff !== null && el("staff", staff)], {
    placement: "below",
  });

/** Goes back in time, for another voice. */
export const backup = (ticks: Ticks): Element => el("backup", [el("duration", ticks)]);
