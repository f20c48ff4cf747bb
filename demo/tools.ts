import {
  applyEdit,
  bassLines,
  breathsOf,
  must,
  QUARTER,
  voiceSection,
  type Drum,
  type Edit,
  type Note,
  type Song,
} from "../core/src/index";

/** Notes written as "bar:beat pitch beats [syllable]", separated by commas; bar 0 is the pickup. */
export function tune(text: string, beatsInBar = 4): Omit<Note, "id">[] {
  return text.split(",").map((item) => {
    const [place, pitch, beats, syllable] = item.trim().split(/\s+/);
    const [bar, beat] = place!.split(":").map(Number);
    const start = (bar! - 1) * beatsInBar * QUARTER + Math.round((beat! - 1) * QUARTER);
    return {
      start,
      duration: Math.round(Number(beats) * QUARTER),
      pitch: pitch!,
      velocity: 88,
      ...(syllable ? { lyrics: [syllable] } : {}),
    };
  });
}

/** Hits of one bar as "beat:velocity", repeated in the given bars. */
export const drums = (section: string, drum: Drum, bars: number[], pattern: string, beatsInBar = 4): Edit[] =>
  bars.flatMap((bar) =>
    pattern.split(/\s+/).map((hit): Edit => {
      const [beat, velocity] = hit.split(":").map(Number);
      return {
        do: "setHit",
        section,
        drum,
        start: (bar - 1) * beatsInBar * QUARTER + Math.round((beat! - 1) * QUARTER),
        velocity: velocity!,
      };
    }),
  );

export const range = (from: number, to: number): number[] => Array.from({ length: to - from + 1 }, (_, i) => from + i);

export function build(start: Song, edits: Edit[]): Song {
  return edits.reduce((song, edit) => must(applyEdit(song, edit)).song, start);
}

/** Ends notes early where singers would find no place to breathe. */
export const breathing = (song: Song): Song =>
  song.sections.reduce(
    (all, { id }) =>
      all.parts.reduce((now, part) => {
        const phrases = part.role === "vocal" || part.role === "melody" ? breathsOf(now, { section: id, part: part.id }) : null;
        return phrases?.ok
          ? build(
              now,
              phrases.value.flatMap((p) => p.breaths.flatMap((b) => b.edit ?? [])),
            )
          : now;
      }, all),
    song,
  );

/** Voices every section and takes the writer's first bass line for it. */
export function arrange(song: Song, style: string, seed: number, glides: boolean): Song {
  let current = song;
  for (const { id } of song.sections) {
    const voiced = must(voiceSection(current, id, "keys"));
    current = build(current, [
      {
        do: "setVoicings",
        section: id,
        part: "keys",
        pitches: Object.fromEntries(voiced.ids.map((chord, i) => [chord, voiced.chords[i]!.pitches])),
      },
    ]);
    const [line] = must(bassLines(current, { section: id, part: "bass", style, seed, settings: { glides } }));
    current = build(current, [{ do: "setNotes", section: id, part: "bass", notes: line!.notes }]);
  }
  return current;
}
