import {
  Accidental,
  Articulation,
  Beam,
  Dot,
  Fraction,
  GhostNote,
  ModifierPosition,
  StaveNote,
  TabNote,
  Tuplet,
  type StemmableNote,
} from "vexflow/bravura";
import {
  type EngravedChord,
  firstOf,
  Meter,
  Notation,
  nth,
  type StaffClef,
  sure,
  type TabMoment,
} from "../../core/src/index";
import { Spacer } from "./small";
import { widthOf } from "./svg";

const vexKey = (pitch: string): string => {
  const [, name, octave] = sure(/^([A-G](?:bb|b|##|x|#)?)(-?\d+)$/.exec(pitch));
  return `${sure(name).toLowerCase().replace("x", "##")}/${octave}`;
};

const REST_KEY: Record<StaffClef, string> = {
  treble: "b/4",
  bass: "d/3",
  alto: "c/4",
  tenor: "a/3",
  percussion: "b/4",
};

/** One voice of a bar as notes that can be drawn. */
export interface Bar {
  notes: StemmableNote[];
  chords: readonly EngravedChord[];
  tuplets: Tuplet[];
  beams: Beam[];
}

/**
 * Steps from the middle line to where a rest stands beside another voice, and from a note of that voice to the rest.
 */
const [ASIDE, CLEAR] = [3, 5];

/**
 * Where a rest stands beside another voice: above or below the middle, clear of what that voice has at the same time.
 */
function restBeside(rest: EngravedChord, clef: StaffClef, stem: Stem, other: readonly EngravedChord[]): string {
  const middle = Notation.TOP_LINE[clef] - 4;
  const steps = other
    .filter((c) => c.start < rest.start + rest.ticks && c.start + c.ticks > rest.start)
    .flatMap((c) => c.notes.map((n) => Notation.staffStep(n.pitch)));
  const step =
    stem === UP
      ? Math.max(middle + ASIDE, ...steps.map((s) => s + CLEAR))
      : Math.min(middle - ASIDE, ...steps.map((s) => s - CLEAR));
  return `${LETTERS[step % 7]}/${Math.floor(step / 7)}`;
}
const LETTERS = "cdefgab";

/** A rest that takes its time and is not drawn, where a triplet needs a note. */
class Unseen extends StaveNote {
  override draw(): void {
    this.setRendered();
  }
}

/** Heads of percussion. */
const HEADS: Record<NonNullable<EngravedChord["notes"][number]["head"]>, string> = {
  x: "/x2",
  "circle-x": "/cx",
  diamond: "/d2",
  triangle: "/t2",
  slash: "",
};
const ACCIDENTALS: Record<number, string> = { [-2]: "bb", [-1]: "b", 0: "n", 1: "#", 2: "##" };
export const UP = 1;
export const DOWN = -1;
type Stem = typeof UP | typeof DOWN;

/** One bar of a voice as notes that can be drawn; with a stem direction, one of two voices. */
export function barOf(
  chords: readonly EngravedChord[],
  clef: StaffClef,
  { meter, text }: { meter: Meter; text: number },
  { stem, other = [] }: { stem?: Stem | undefined; other?: readonly EngravedChord[] | undefined } = {},
): Bar {
  const silent = chords.every((c) => !c.notes.length);
  const list = silent ? [{ ...firstOf(chords), value: "w" as const, dots: 0 as const, triplet: false }] : chords;
  const notes = list.map((c): StemmableNote => {
    const rest = !c.notes.length;
    const duration = `${c.value}${c.dots ? "d" : ""}`;
    if (c.hidden)
      return c.triplet
        ? new Unseen({ clef, keys: [REST_KEY[clef]], duration: `${duration}r` })
        : new GhostNote({ duration, dots: c.dots });
    const restKey = stem === undefined ? REST_KEY[clef] : restBeside(c, clef, stem, other);
    const slash = c.notes.some((n) => n.head === "slash");
    const kind = () => {
      if (rest) return "r";
      if (slash) return "s";
      return "";
    };
    const note = new StaveNote({
      clef,
      keys: rest ? [restKey] : c.notes.map((n) => vexKey(n.pitch) + (n.head ? HEADS[n.head] : "")),
      duration: `${duration}${kind()}`,
      ...(stem === undefined ? { autoStem: true } : { stemDirection: stem }),
      ...(silent ? { alignCenter: true } : {}),
    });
    if (c.dots) Dot.buildAndAttach([note], { all: true });
    c.notes.forEach((n, k) => {
      if (!n.accidental) return;
      const sign = new Accidental(ACCIDENTALS[n.accidental.alter] ?? "n");
      note.addModifier(n.accidental.courtesy ? sign.setAsCautionary() : sign, k);
    });
    const words = Math.max(
      0,
      ...(c.words ?? []).map((w) => (w ? widthOf(`${w.text}${w.goesOn ? "-" : ""} `, "syllable") * text : 0)),
    );
    if (words) note.addModifier(new Spacer(words));
    return note;
  });
  if (silent) return { notes, chords: [], tuplets: [], beams: [] };
  // A triplet is known before beams are laid: its three eighths are one beat.
  const tuplets = tupletsOf(list, notes);
  const groups = meter.beats.map((b) => new Fraction(b.duration / Meter.EIGHTH, 8));
  const beams = Beam.generateBeams(
    notes,
    stem === undefined ? { groups, maintainStemDirections: false } : { groups, stemDirection: stem },
  );
  // Beams turn stems: dots and lines are set when that is known, at the heads, or outside where another voice is on
  // that side.
  notes.forEach((note, i) => {
    const sign = nth(list, i).articulation;
    if (!sign) return;
    const above = stem === undefined ? note.getStemDirection() === DOWN : stem === UP;
    note.addModifier(
      new Articulation(sign === "staccato" ? "a." : "a-").setPosition(
        above ? ModifierPosition.ABOVE : ModifierPosition.BELOW,
      ),
    );
  });
  for (const tuplet of tuplets) tuplet.setBracketed(tuplet.getNotes().some((n) => !(n as StemmableNote).hasBeam()));
  return { notes, chords: list, tuplets, beams };
}

/** Thirds of a beat, bracketed beat by beat. */
function tupletsOf(list: readonly EngravedChord[], notes: StemmableNote[]): Tuplet[] {
  const beats = new Map<number, StemmableNote[]>();
  list.forEach((c, i) => {
    if (!c.triplet) return;
    const beat = Math.floor(c.start / Meter.QUARTER);
    beats.set(beat, [...(beats.get(beat) ?? []), nth(notes, i)]);
  });
  return [...beats.values()].map((group) => new Tuplet(group, { numNotes: 3, notesOccupied: 2 }));
}

/** A bar of tablature beside the notes of the same bar; what is held over a bar line stands in brackets. */
export function tabBar(notes: Bar | null, moments: readonly (TabMoment | null)[], strings: number): StemmableNote[] {
  if (!notes) return [new GhostNote({ duration: "q" })];
  if (!notes.chords.length) return [new GhostNote({ duration: "w" })];
  return notes.chords.map((c, i) => {
    const here = moments[i];
    const duration = `${c.value}${c.dots ? "d" : ""}`;
    if (!here || (here.held && i > 0)) return new GhostNote({ duration });
    return new TabNote({
      positions: here.places.map((p) => ({ str: strings - p.string, fret: here.held ? `(${p.fret})` : p.fret })),
      duration,
    });
  });
}
