import { sure } from "../base/list";
import { pitchMidi } from "../theory/pitch/pitch";
import type { Ticks } from "../theory/time/meter";
import type { CompChord } from "./comp/kind";
import { COMP_KINDS } from "./comp/kinds";
import { withFeel } from "./comp/feel";
import { sectionMeter } from "./document";
import { playingOf } from "./playing";
import { layoutIn, withStrokes, type StrokesByChord } from "./layouts";
import type { Note, Part, Pass, PlayingOf, Section, Song } from "./schema";

/** The chords of a section as a part voices them, in order. */
export const voicedChords = (section: Pick<Section, "chords">, part: string, pass?: Pass): CompChord[] =>
  section.chords.flatMap((event) => {
    const own = pass?.voicings?.[part]?.[event.id];
    const layout = own ? layoutIn(own) : event.voicings?.[part];
    if (!layout?.pitches.length) return [];
    return [
      {
        id: event.id,
        start: event.start,
        duration: event.duration,
        pitches: layout.pitches.map((name) => ({ midi: pitchMidi(name), name })).sort((a, b) => a.midi - b.midi),
      },
    ];
  });

/** Strokes of the chords that a part plays in its own way. */
const strokesOf = (section: Pick<Section, "chords">, part: string, pass?: Pass): StrokesByChord =>
  new Map(
    section.chords.flatMap((event) => {
      const own = pass?.voicings?.[part]?.[event.id];
      const strokes = (own && layoutIn(own).strokes) ?? event.voicings?.[part]?.strokes;
      return strokes?.length ? [[event.id, { start: event.start, strokes }] as const] : [];
    }),
  );

/** The part whose voicings a linked part plays. */
export const voicesOf = (part: Part): string => part.link?.from ?? part.id;

/** A note of a linked part, the chord it comes from, and the stroke it belongs to where it does not begin there. */
export interface LinkedNote {
  note: Note;
  chordId: string;
  stroke?: Ticks;
}

/** What a linked part plays in a section. */
export function linkedNotes(song: Song, section: Section, part: Part, pass?: Pass): LinkedNote[] {
  return derived(song, section, part, { playing: playingOf(part, "comp", { section, pass }), pass });
}

function derived(
  song: Song,
  section: Section,
  part: Part,
  { playing, pass, held }: { playing: PlayingOf<"comp">; pass?: Pass | undefined; held?: true },
): LinkedNote[] {
  const link = sure(part.link);
  const kind = sure(COMP_KINDS.find((k) => k.id === (link.kind === "block" ? link.kind : (playing.kind ?? link.kind))));
  // Block chords are laid out by the voicing path and stored as notes.
  if (kind.id === "block")
    return (section.notes[part.id] ?? []).map((note) => ({
      note,
      chordId:
        section.chords.find((c) => c.start <= Math.max(0, note.start) && note.start < c.start + c.duration)?.id ?? "",
    }));
  const meter = sectionMeter(song, section);
  const raw = kind.notes({
    chords: voicedChords(section, voicesOf(part), pass),
    meter,
    length: section.bars * meter.bar,
    loop: song.parts.find((p) => p.id === voicesOf(part))?.link?.loop ?? false,
    hits: (drum) =>
      [...(section.groove.lanes.find((l) => l.drum === drum)?.hits ?? [])].sort((a, b) => a.start - b.start),
    melody: () =>
      song.parts
        .filter((p) => p.role === "melody" || p.role === "vocal")
        .flatMap((p) => section.notes[p.id] ?? [])
        .map(({ start, duration }) => ({ start, duration }))
        .sort((a, b) => a.start - b.start),
    playing,
  });
  const counts = new Map<string, number>();
  const struck = held ? raw : withStrokes(raw, strokesOf(section, part.id, pass));
  return withFeel(struck, playing)
    .filter((n) => n.midi >= 0 && n.midi <= 127)
    .map(({ chord, start, duration, name, velocity, offset, swell, stroke }): LinkedNote => {
      const i = counts.get(chord) ?? 0;
      counts.set(chord, i + 1);
      return {
        chordId: chord,
        ...(stroke === undefined || stroke === start ? {} : { stroke }),
        note: {
          id: `${chord}.${i}`,
          start,
          duration,
          pitch: name,
          velocity,
          voice: Math.min(8, i + 1),
          ...(offset ? { offset } : {}),
          ...(swell ? { swell } : {}),
        },
      };
    });
}

/**
 * The harmony of a linked part: its own voicings held as long as their chords; a part that plays another's brings
 * nothing of its own.
 */
export const linkedHarmony: typeof linkedNotes = (song, section, part, pass) =>
  sure(part.link).from ? [] : derived(song, section, part, { playing: {}, pass, held: true });
