import { nth, sure } from "../core/src/base/list";
import {
  Bass,
  Check,
  type Drum,
  Edit,
  Form,
  Meter,
  must,
  type Note,
  Singer,
  type Song,
  Voicing,
} from "../core/src/index";
import { storeVoicing } from "../core/src/arrange/voicing/section";

/** Notes written as "bar:beat pitch beats [syllable]", separated by commas; bar 0 is the pickup. */
export function tune(text: string, beatsInBar = 4): Omit<Note, "id">[] {
  return text.split(",").map((item) => {
    const [place, pitch, beats, syllable] = item.trim().split(/\s+/);
    const [bar, beat] = sure(place).split(":").map(Number);
    const start = (sure(bar) - 1) * beatsInBar * Meter.QUARTER + Math.round((sure(beat) - 1) * Meter.QUARTER);
    return {
      start,
      duration: Math.round(Number(beats) * Meter.QUARTER),
      pitch: sure(pitch),
      velocity: 88,
      ...(syllable ? { lyrics: [syllable] } : {}),
    };
  });
}

/** Hits of one bar as "beat:velocity", repeated in the given bars. */
export const drums = (
  section: string,
  drum: Drum,
  bars: number[],
  { pattern, beatsInBar = 4 }: { pattern: string; beatsInBar?: number | undefined },
): Edit[] =>
  bars.flatMap((bar) =>
    pattern.split(/\s+/).map((hit): Edit => {
      const [beat, velocity] = hit.split(":").map(Number);
      return {
        do: "setHit",
        section,
        drum,
        start: (bar - 1) * beatsInBar * Meter.QUARTER + Math.round((sure(beat) - 1) * Meter.QUARTER),
        velocity: sure(velocity),
      };
    }),
  );

export const range = (from: number, to: number): number[] => Array.from({ length: to - from + 1 }, (_, i) => from + i);

export function build(start: Song, edits: Edit[]): Song {
  return edits.reduce((song, edit) => must(Edit.apply(song, edit)).song, start);
}

/** Ends notes early where singers would find no place to breathe. */
export const breathing = (song: Song): Song =>
  song.sections.reduce(
    (all, { id }) =>
      all.parts.reduce((now, part) => {
        const phrases =
          part.role === "vocal" || part.role === "melody" ? Singer.breaths(now, { section: id, part: part.id }) : null;
        return phrases?.ok
          ? build(
              now,
              phrases.value.flatMap((p) => p.breaths.flatMap((b) => b.edit ?? [])),
            )
          : now;
      }, all),
    song,
  );

/** Lays the chords out anew along the form, from its end on, until every section leads into the next as it stands. */
export function laidAlong(song: Song): Song {
  let current = song;
  for (let round = 0; round < 6; round++) {
    const before = current;
    for (const { id } of [...song.sections].reverse())
      current = build(current, [storeVoicing(id, "keys", must(Voicing.section(current, id, "keys")))]);
    if (JSON.stringify(current) === JSON.stringify(before)) return current;
  }
  return current;
}

/** The bass line of every section as the form goes on, with last bars of their own for passes that go on elsewhere. */
export function ledOn(song: Song, seed: number, glides: boolean): Song {
  return song.sections.reduce((now, { id }) => {
    const request = { section: id, part: "bass", seed, settings: { glides } };
    const taken = must(Bass.write(now, request)).map((line) =>
      build(now, [
        { do: "setNotes", section: id, part: "bass", notes: line.notes },
        ...Bass.endings(now, request, line.notes),
      ]),
    );
    // Of the lines that are offered, the one in which least is found.
    const found = taken.map((s) => Check.song(s).length);
    return nth(taken, found.indexOf(Math.min(...found)));
  }, song);
}

/** Other chords in the last bar of one pass, with the layouts and the end of the bass line that belong to them. */
export function otherEnding(song: Song, pass: string, line: string, seed: number): Song {
  const { sectionId } = sure(song.form.find((p) => p.id === pass));
  const section = sure(song.sections.find((s) => s.id === sectionId));
  const lastBar = (section.bars - 1) * must(Meter.parse(song.meter)).bar;
  const changed = build(song, [
    Edit.withFollowing(song, { do: "inPass", pass, here: true, edit: { do: "setLine", section: sectionId, line } }),
  ]);
  const view = Form.view(changed, pass, true);
  const notes = sure(sure(view.sections.find((s) => s.id === sectionId)).notes.bass);
  const held = build(view, [
    {
      do: "setNotes",
      section: sectionId,
      part: "bass",
      notes: notes.map((n) => (n.start < lastBar ? { ...n, pinned: true } : n)),
    },
  ]);
  const [written] = must(Bass.write(held, { section: sectionId, part: "bass", seed }));
  return build(changed, [
    {
      do: "inPass",
      pass,
      here: true,
      edit: {
        do: "setNotes",
        section: sectionId,
        part: "bass",
        notes: [...notes.filter((n) => n.start < lastBar), ...sure(written).notes.filter((n) => n.start >= lastBar)],
      },
    },
  ]);
}

/** Voices every section and takes the writer's first bass line for it. */
export function arrange(song: Song, style: string, seed: number, glides: boolean): Song {
  let current = song;
  for (const { id } of song.sections) {
    const voiced = must(Voicing.section(current, id, "keys"));
    current = build(current, [
      {
        do: "setVoicings",
        section: id,
        part: "keys",
        pitches: Object.fromEntries(voiced.ids.map((chord, i) => [chord, nth(voiced.chords, i).pitches])),
      },
    ]);
    const [line] = must(Bass.write(current, { section: id, part: "bass", style, seed, settings: { glides } }));
    current = build(current, [{ do: "setNotes", section: id, part: "bass", notes: sure(line).notes }]);
  }
  return current;
}
