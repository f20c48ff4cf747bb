import {
  Chord,
  type Edit,
  Instrument,
  type NewNote,
  type Part,
  type Section,
  Song,
  type Syllable,
  Words,
} from "../../../core/src/index";

/** The edit that lays syllables under the notes of a part, and what found no note. */
export function layEdit(
  section: Section,
  part: string,
  syllables: readonly string[],
  { from, verse }: { from: number; verse: number },
): { edit: Edit; left: string[] } {
  const { notes, left } = Words.lay(section.notes[part] ?? [], syllables, { from, verse });
  return { edit: { do: "changeNotes", section: section.id, part, notes }, left };
}

/**
 * Notes for words that have none yet: the rhythm that is proposed for them, on the tone of each chord that lies nearest
 * to the middle of the voice.
 */
export function proposedNotes(
  song: Song,
  section: Section,
  part: Part,
  { lines, verse }: { lines: readonly (readonly Syllable[])[]; verse: number },
): { notes: NewNote[]; left: number } {
  const meter = Song.meterOf(song, section);
  const { placed, left } = Words.rhythm(lines, meter, section.bars);
  const [low, high] = Instrument.range(part.range ?? Instrument.of(part.instrument, song).comfortable);
  let near = Math.round((low + high) / 2);
  const notes = placed.map((p): NewNote => {
    const chord = Chord.of(
      section.chords.findLast((c) => c.start <= p.start && p.start < c.start + c.duration)?.symbol ?? "",
    );
    const pcs = chord ? Chord.pitchClasses(chord) : null;
    const midi = pcs
      ? ([0, -1, 1, -2, 2, -3, 3, -4, 4]
          .map((d) => near + d)
          .find((m) => pcs.includes(((m % 12) + 12) % 12) && m >= low && m <= high) ?? near)
      : near;
    near = midi;
    return {
      start: p.start,
      duration: p.duration,
      pitch: Song.spell(song, section, p.start, midi),
      velocity: p.stress ? 92 : 80,
      lyrics: [...Array.from({ length: verse }, () => ""), Words.written(p)],
    };
  });
  return { notes, left };
}
