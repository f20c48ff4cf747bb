import { usualRange } from "../lines/ground";
import { lastOf, sure } from "../../base/list";
import { fail, ok, type Result } from "../../base/result";
import { mod, pitchMidi, type Midi } from "../../theory/pitch/pitch";
import { bassPc } from "../../theory/chord/chord";
import { instrumentOf, midiRange } from "../../theory/instrument/instruments";
import { partOf, sectionMeter, sectionOf } from "../../song/document";
import type { Edit } from "../../song/edits";
import { chordAtTick, realize } from "../../song/realize";
import type { Note, Part, Section, Song } from "../../song/schema";
import { spellAt } from "../../song/spell";
import { figures } from "./context";

export interface LayerOffer {
  id: string;
  title: string;
  explanation: string;
  edit: Edit;
}

export const plainNotes = (notes: readonly Note[]): Omit<Note, "id">[] => notes.map(({ id: _, ...n }) => n);

/** Octaves by which a line is moved to lie in a range, as near as it can; null where it does not fit. */
function octavesInto(notes: readonly Note[], [low, high]: [Midi, Midi], prefers: number): number | null {
  const midis = notes.map((n) => pitchMidi(n.pitch));
  const fits = [prefers, 12, -12, 24, -24].filter((by) => midis.every((m) => m + by >= low && m + by <= high));
  return fits[0] ?? null;
}

const shifted = (song: Song, section: Section, notes: readonly Note[], by: number): Omit<Note, "id">[] =>
  plainNotes(notes).map((n) => ({
    ...n,
    pitch: spellAt(song, section, Math.max(0, n.start), pitchMidi(n.pitch) + by),
    ...(n.slide
      ? { slide: { ...n.slide, to: spellAt(song, section, Math.max(0, n.start), pitchMidi(n.slide.to) + by) } }
      : {}),
  }));

/** Two bass parts of a section with the line they are to share. */
interface Shared {
  song: Song;
  section: Section;
  lead: Part;
  other: Part;
  line: readonly Note[];
  /** Octaves that bring notes into the other part's range: comfortable where that is possible, else whatever it can. */
  octaves(notes: readonly Note[], prefers: number): number | null;
}

const both = (first: Edit, second: Edit): Edit => ({ do: "all", label: "bass layers", edits: [first, second] });

/** What is not the lead's goes to the other, in the octave where it fits; none where one would have it all. */
function takingTurns({ song, section, lead, other, line, octaves }: Shared, turn: Turn): LayerOffer[] {
  const given = line.filter((n) => !turn.mine(n));
  if (!given.length || given.length === line.length) return [];
  // As a whole where it fits, otherwise each note in the nearest octave that the other has.
  const by = octaves(given, 0);
  const moved =
    by === null
      ? given.flatMap((n) => shifted(song, section, [n], octaves([n], 0) ?? 0))
      : shifted(song, section, given, by);
  const { id, title, explanation } = turn;
  const edit = both(
    { do: "setNotes", section: section.id, part: lead.id, notes: line.filter(turn.mine) },
    { do: "setNotes", section: section.id, part: other.id, notes: moved },
  );
  return [{ id, title, explanation, edit }];
}

/** A way of taking turns: which notes are the lead's. */
interface Turn {
  id: string;
  title: string;
  explanation: string;
  mine(note: Note): boolean;
}

function turnsOf({ song, section, lead: a, other: b }: Shared): Turn[] {
  const meter = sectionMeter(song, section);
  const { chords } = realize(song, { section: section.id });
  const spans = figures({ meter, bars: section.bars, chords });
  const last = lastOf(meter.beats).duration;
  const anchor = (n: Note) => {
    const chord = chordAtTick(chords, n.start);
    return !chord?.chord || mod(pitchMidi(n.pitch), 12) === bassPc(chord.chord);
  };
  return [
    {
      id: "turns-figure",
      title: "Turns, figure by figure",
      explanation: `${a.name} plays the first figure, ${b.name} answers with the second.`,
      mine: (n) => spans.findIndex((f) => n.start < f.to) % 2 === 0,
    },
    {
      id: "turns-ends",
      title: "Turns, the ends for the other",
      explanation: `${a.name} carries the figure, ${b.name} plays what leads into the next one.`,
      mine: (n) => !spans.some((f) => n.start >= f.to - last && n.start < f.to),
    },
    {
      id: "turns-roots",
      title: `Roots for ${a.name}`,
      explanation: `${a.name} keeps the bass of every chord, ${b.name} has the other notes.`,
      mine: anchor,
    },
    {
      id: "turns-moves",
      title: `Roots for ${b.name}`,
      explanation: `${b.name} has the bass of every chord, ${a.name} keeps the other notes.`,
      mine: (n) => !anchor(n),
    },
  ];
}

/** Both as one voice: the other above, or underneath while the lead goes up an octave. */
function asOneVoice({ song, section, lead: a, other: b, line, octaves }: Shared): LayerOffer[] {
  const offers: LayerOffer[] = [];
  const up = octaves(line, 12);
  if (up !== null && up !== 0)
    offers.push({
      id: "voice",
      title: `One voice, ${Math.abs(up) === 12 ? "an octave" : "two octaves"} ${up > 0 ? "higher" : "lower"}`,
      explanation: `${b.name} plays every note of ${a.name} with it: same rhythm, same pitches, another octave.`,
      edit: { do: "setNotes", section: section.id, part: b.id, notes: shifted(song, section, line, up) },
    });
  const leadRange = usualRange(song, a);
  if (octaves(line, 0) === 0 && octavesInto(line, leadRange, 12) === 12)
    offers.push({
      id: "voice-under",
      title: `One voice, ${b.name} underneath`,
      explanation: `${a.name} moves an octave up, ${b.name} plays the same line where it was: one line in two sounds.`,
      edit: both(
        { do: "setNotes", section: section.id, part: a.id, notes: shifted(song, section, line, 12) },
        { do: "setNotes", section: section.id, part: b.id, notes: plainNotes(line) },
      ),
    });
  return offers;
}

/**
 * Ways for two bass parts to share one line: taking turns by figure, the low notes for one and the moves for the other,
 * the ends for the other, or both as one voice an octave apart. Errors: `bass.layers`.
 */
export function layerOffers(song: Song, sectionId: string, leadId: string, otherId: string): Result<LayerOffer[]> {
  const section = sectionOf(song, sectionId);
  const [lead, other] = [partOf(song, leadId), partOf(song, otherId)];
  if (!section || !lead || !other || lead.id === other.id) return fail("bass.layers", "Two bass parts are needed");
  const line = section.notes[leadId] ?? [];
  if (!line.length)
    return fail("bass.layers", `${lead.name} has no notes in ${section.name} to share`, {
      hint: "Write its line first.",
    });
  const instrument = instrumentOf(other.instrument, song);
  const [comfortable, all] = [instrument.comfortable, instrument.range].map((r) => midiRange(other.range ?? r));
  const octaves = (notes: readonly Note[], prefers: number) =>
    octavesInto(notes, sure(comfortable), prefers) ?? octavesInto(notes, sure(all), prefers);
  const shared: Shared = { song, section, lead, other, line, octaves };
  const offers = [...turnsOf(shared).flatMap((turn) => takingTurns(shared, turn)), ...asOneVoice(shared)];
  return offers.length
    ? ok(offers)
    : fail("bass.layers", `No octave of the line lies in ${other.name}’s range`, {
        hint: "Widen its range or choose another instrument.",
      });
}
