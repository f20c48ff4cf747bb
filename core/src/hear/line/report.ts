import { firstOf, lastOf } from "../../base/list";
import { counted } from "../../theory/words/english";
import { mod, noteOf } from "../../theory/pitch/pitch";
import { beatsText, positionText } from "../../theory/time/meter";
import { toneRole } from "../../theory/chord/chord";
import type { RealizedNote } from "../../song/realize";
import {
  attacksABar,
  contourOf,
  gapsOf,
  leapsOf,
  nearest,
  phrasesOf,
  returnsOf,
  silenceOf,
  span,
  type Contour,
  type TuneContext,
} from "./tune";

/** A measure of a tune: everything that is known of it stands in its definition. */
interface Definition {
  id: string;
  title: string;
  how: string;
  take(context: TuneContext): { value: string; of?: readonly RealizedNote[] };
}

/** One row of the report on a tune. */
export interface TuneMeasure {
  id: string;
  title: string;
  /** How it is worked out; shown beside it. */
  how: string;
  value: string;
  /** Ids of the notes it points at. */
  notes: string[];
}

const CONTOURS: Record<Contour, string> = {
  rises: "rises",
  falls: "falls",
  arch: "an arch",
  bowl: "a bowl",
  level: "level",
};

/** Returns that are told one by one. */
const TOLD = 3;

/** Different notes that are named; of more only the number is told. */
const NAMED = 8;

/** The different notes from the lowest up, and what they are over the chord where all sound over one. */
function differentNotes({ notes, chords }: TuneContext): string {
  const names = new Map<number, string>();
  for (const n of [...notes].sort((a, b) => a.midi - b.midi)) {
    const pc = mod(n.midi, 12);
    if (!names.has(pc)) names.set(pc, noteOf(n.pitch));
  }
  if (names.size > NAMED) return String(names.size);
  const under = new Map(
    (chords ?? []).flatMap((c) =>
      c.chord && notes.some((n) => n.start < c.start + c.duration && n.start + n.duration > c.start)
        ? [[c.symbol, c.chord]]
        : [],
    ),
  );
  const [only] = under.size === 1 ? [...under] : [];
  const roles = only ? ` (${[...names.keys()].map((pc) => toneRole(only[1], pc).role).join(" ")} over ${only[0]})` : "";
  return `${names.size}: ${[...names.values()].join(" ")}${roles}`;
}

/** Every measure of a tune, in the order in which they are shown; a new one is one definition. */
const TUNE_MEASURES: readonly Definition[] = [
  {
    id: "range",
    title: "Range",
    how: "lowest and highest note",
    take({ notes }) {
      const sorted = [...notes].sort((a, b) => a.midi - b.midi);
      const [low, high] = [firstOf(sorted), lastOf(sorted)];
      return { value: `${low.pitch} to ${high.pitch}, ${counted(high.midi - low.midi, "semitone")}`, of: [low, high] };
    },
  },
  {
    id: "tessitura",
    title: "Tessitura",
    how: "where half of the sounding time lies, in the middle of all pitches",
    take({ notes }) {
      const [low, high] = span(notes, 0.5);
      return {
        value: `${nearest(notes, low).pitch} to ${nearest(notes, high).pitch}`,
        of: notes.filter((n) => n.midi >= low && n.midi <= high),
      };
    },
  },
  {
    id: "leaps",
    title: "Leaps",
    how: "wider than a major third; answered by a step the other way. It shows those that are not",
    take(context) {
      const leaps = leapsOf(context);
      if (!leaps.length) return { value: "none" };
      const led = leaps.filter((l) => l.recovered !== null);
      const open = led.filter((l) => !l.recovered);
      return {
        value: `${leaps.length}, ${led.length - open.length} of ${led.length} answered`,
        of: (open.length ? open : leaps).flatMap((l) => [l.from, l.to]),
      };
    },
  },
  {
    id: "phrases",
    title: "Phrases",
    how: "a rest of a beat or more ends one; the longest in seconds, as it is breathed",
    take(context) {
      const phrases = phrasesOf(context);
      const longest = phrases.reduce((a, b) => (b.seconds > a.seconds ? b : a));
      const seconds = `${longest.seconds.toFixed(1)} s`;
      if (phrases.length === 1) return { value: `one, of ${seconds}`, of: longest.notes };
      return {
        value: `${phrases.length}, the longest ${seconds} from ${positionText(context.meter, longest.start)}`,
        of: longest.notes,
      };
    },
  },
  {
    id: "gaps",
    title: "Gaps",
    how: "silences of a beat or more, the repetition counted: where something could answer",
    take({ notes, meter, length }) {
      const gaps = gapsOf(notes, meter, length);
      if (!gaps.length) return { value: "none" };
      const longest = gaps.reduce((a, b) => (b.to - b.from > a.to - a.from ? b : a));
      const said = `${beatsText(meter, longest.to - longest.from)} from ${positionText(meter, longest.from)}`;
      return { value: gaps.length === 1 ? `one, ${said}` : `${gaps.length}, the longest ${said}` };
    },
  },
  {
    id: "contour",
    title: "Contour",
    how: "the three thirds of the tune against each other",
    take: ({ notes }) => ({ value: CONTOURS[contourOf(notes)] }),
  },
  {
    id: "pitches",
    title: "Different notes",
    how: "octaves counted as one",
    take: (context) => ({ value: differentNotes(context) }),
  },
  {
    id: "density",
    title: "Notes a bar",
    how: "attacks over all bars of the section",
    take: (context) => ({ value: attacksABar(context).toFixed(1) }),
  },
  {
    id: "silence",
    title: "Silence",
    how: "share of the section in which it rests",
    take: (context) => ({ value: `${Math.round(silenceOf(context) * 100)} %` }),
  },
  {
    id: "returns",
    title: "Comes back",
    how: "phrases that begin with three notes or more of an earlier one, in rhythm and intervals",
    take(context) {
      const returns = returnsOf(context);
      if (!returns.length) return { value: "no phrase" };
      const told = returns
        .slice(0, TOLD)
        .map((r) => `at ${positionText(context.meter, r.again.start)} ${r.words}`)
        .join("; ");
      const more = returns.length - TOLD;
      return { value: more > 0 ? `${told}; and ${more} more` : told, of: returns.flatMap((r) => r.again.notes) };
    },
  },
];

/** The report on a tune; empty where it has no note. */
export const tuneReport = (context: TuneContext): TuneMeasure[] =>
  context.notes.length
    ? TUNE_MEASURES.map(({ id, title, how, take }) => {
        const { value, of = [] } = take(context);
        return { id, title, how, value, notes: [...new Set(of.map((n) => n.id))] };
      })
    : [];

/** What is told of a tune where another one stands beside it. */
export const tuneInShort = ({ notes, ...context }: TuneContext): string => {
  const sorted = [...notes].sort((a, b) => a.midi - b.midi);
  const density = attacksABar({ notes, ...context }).toFixed(1);
  return (
    `${firstOf(sorted).pitch} to ${lastOf(sorted).pitch}, ${density} notes a bar, ` +
    `${Math.round(silenceOf({ notes, ...context }) * 100)} % silence`
  );
};
