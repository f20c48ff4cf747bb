import { firstOf, lastOf, nth, sure } from "../../src/base/list";
import { applyEdit } from "../../src/song/edits";
import { must } from "../../src/base/result";
import { pitchMidi } from "../../src/theory/pitch/pitch";
import { spellAt } from "../../src/song/spell";
import type { Edit } from "../../src/song/edits/list";
import type { Note } from "../../src/song/schema/material";
import type { Song } from "../../src/song/schema/song";

export interface Put {
  song: Song;
  /** Notes or parts that were touched; where neither is named, the song as a whole. */
  notes?: string[];
  parts?: string[];
}

export interface At {
  song: Song;
  pick: (n: number) => number;
  part: (name: string) => string;
  section: string;
  list: (name: string) => Note[];
}

const make = (song: Song, ...edits: Edit[]): Song => edits.reduce((s, e) => must(applyEdit(s, e)).song, song);
const change = ({ song, section }: At, part: string, notes: ({ id: string } & Partial<Omit<Note, "id">>)[]): Song =>
  make(song, { do: "changeNotes", section, part, notes });
const moved = (at: At, name: string, note: Note, by: number): Put => {
  const target = sure(at.song.sections.find((s) => s.id === at.section));
  const pitch = spellAt(at.song, target, Math.max(0, note.start), pitchMidi(note.pitch) + by);
  return { song: change(at, at.part(name), [{ id: note.id, pitch }]), notes: [note.id] };
};
const all = (at: At, name: string, by: number): Put => {
  const notes = at.list(name);
  const target = sure(at.song.sections.find((s) => s.id === at.section));
  const changes = notes.map((n) => ({
    id: n.id,
    pitch: spellAt(at.song, target, Math.max(0, n.start), pitchMidi(n.pitch) + by),
  }));
  return { song: change(at, at.part(name), changes), parts: [at.part(name)] };
};
const any = <T>({ pick }: At, list: readonly T[]): T => nth(list, pick(list.length));
/** One of the notes with which a part begins a bar. */
const downbeat = (at: At, name: string): Note =>
  any(
    at,
    at.list(name).filter((n) => n.start % 1920 === 0),
  );
/** Another part with notes of its own. */
const add = (
  at: At,
  role: "chords" | "counter" | "bass",
  instrument: string,
  notes: readonly Omit<Note, "id">[],
): Put => {
  const song = make(at.song, { do: "addPart", name: "Added", role, instrument, notes: { [at.section]: [...notes] } });
  return { song, parts: [sure(song.parts.find((p) => p.name === "Added")).id] };
};
const plain = ({ start, duration, pitch, velocity }: Note, by = 0): Omit<Note, "id"> => ({
  start,
  duration,
  velocity,
  pitch: pitch.replace(/-?\d+$/, (o) => String(Number(o) + by)),
});
const rhythm = (steps: readonly number[], pitch: string, bars = 8) =>
  Array.from({ length: bars }, (_, b) =>
    steps.map((s) => ({ start: b * 1920 + s * 120, duration: 120, pitch, velocity: 80 })),
  ).flat();

/** Ways of putting a fault into a band, by the rule that must find it; null where the place offers none. */
export const BAND_INJECTORS: Record<string, (at: At) => Put | null> = {
  "uncovered-accent"(at) {
    const note = any(
      at,
      at.list("Bass").filter((n) => n.start % 960 === 0),
    );
    return {
      song: make(at.song, { do: "removeNotes", section: at.section, part: at.part("Bass"), notes: [note.id] }),
      parts: [at.part("Bass")],
    };
  },
  "low-intervals"(at) {
    const bass = downbeat(at, "Bass");
    const low = sure(at.list("Piano").find((n) => n.start === bass.start));
    return moved(at, "Piano", low, pitchMidi(bass.pitch) + 3 + at.pick(2) - pitchMidi(low.pitch));
  },
  "out-of-range": (at) => moved(at, "Voice", any(at, at.list("Voice")), any(at, [24, -24])),
  polyphony(at) {
    const list = at.list("Voice");
    const i = at.pick(list.length - 1);
    if (nth(list, i).start + nth(list, i).duration < nth(list, i + 1).start) return null;
    return {
      song: change(at, at.part("Voice"), [{ id: nth(list, i).id, duration: nth(list, i).duration + 240 }]),
      notes: [nth(list, i).id, nth(list, i + 1).id],
    };
  },
  "long-outside"(at) {
    const note = downbeat(at, "Bass");
    return moved(at, "Bass", note, any(at, [1, 6]));
  },
  clash(at) {
    const note = downbeat(at, "Voice");
    const pitch = spellAt(at.song, firstOf(at.song.sections), note.start, pitchMidi(note.pitch) - 1);
    return add(at, "counter", "violin", [{ start: note.start, duration: 480, pitch, velocity: 80 }]);
  },
  reach(at) {
    const chord = at.list("Piano").filter((n) => n.start === 960 * at.pick(2) + 1920 * at.pick(8));
    if (!chord.length) return null;
    const far = [5, 6, 4].map((o) => ({ ...plain(firstOf(chord)), pitch: `C${o}` }));
    const song = far.reduce(
      (s, note) => make(s, { do: "addNote", section: at.section, part: at.part("Piano"), note }),
      at.song,
    );
    return {
      song: make(song, {
        do: "addNote",
        section: at.section,
        part: at.part("Piano"),
        note: { ...firstOf(far), pitch: "C1" },
      }),
      parts: [at.part("Piano")],
    };
  },
  "other-chord"(at) {
    const event = any(at, sure(at.song.sections.find((s) => s.id === at.section)).chords);
    const symbol = /m/.test(event.symbol)
      ? event.symbol.replace("m", "")
      : event.symbol.replace(/^([A-G][b#]?)7?$/, "$1m");
    const voice = at.list("Voice").filter((n) => n.start >= event.start && n.start < event.start + event.duration);
    const song = make(at.song, {
      do: "removeNotes",
      section: at.section,
      part: at.part("Voice"),
      notes: voice.map((n) => n.id),
    });
    return {
      song: make(song, { do: "setChord", section: at.section, chord: event.id, symbol }),
      parts: at.song.parts.map((p) => p.id),
    };
  },
  "bass-above-chords"(at) {
    const note = downbeat(at, "Bass");
    const low = sure(at.list("Piano").find((n) => n.start === note.start));
    return pitchMidi(note.pitch) + 24 <= pitchMidi(low.pitch) ? null : moved(at, "Bass", note, 24);
  },
  "bass-layers": (at) =>
    add(
      at,
      "bass",
      "subBass",
      at
        .list("Bass")
        .filter((n) => n.start % 1920 === 0)
        .slice(0, 1 + at.pick(6))
        .map((n) => ({ ...plain(n), pitch: n.pitch.startsWith("C") ? "Gb1" : "C2" })),
    ),
  dwelling(at) {
    const part = at.part("Voice");
    return {
      song: change(
        at,
        part,
        at.list("Voice").map((n, i) => ({ id: n.id, pitch: i % 2 ? "E5" : any(at, ["Eb5", "F5"]) })),
      ),
      parts: [part],
    };
  },
  masking: (at) =>
    add(
      at,
      "chords",
      "guitar",
      at.list("Piano").map((n) => ({
        ...plain(n),
        pitch: spellAt(at.song, firstOf(at.song.sections), 0, pitchMidi(n.pitch) + 1 + at.pick(2)),
        velocity: 62,
      })),
    ),
  covered: (at) =>
    add(
      at,
      "counter",
      "flute",
      at.list("Voice").map((n) => ({
        ...plain(n),
        pitch: spellAt(at.song, firstOf(at.song.sections), 0, pitchMidi(n.pitch) + 3 + at.pick(4)),
        velocity: 100,
      })),
    ),
  crowded(at) {
    const one = add(at, "counter", "violin", rhythm([1, 5, 9, 13], "G5"));
    const two = add({ ...at, song: one.song }, "counter", "clarinet", rhythm([3, 7, 11, 15], "G4"));
    const three = add({ ...at, song: two.song }, "counter", "trumpet", rhythm([2, 6, 10, 14], "E5"));
    return {
      song: three.song,
      parts: [...sure(one.parts), ...three.song.parts.filter((p) => p.name === "Added").map((p) => p.id)],
    };
  },
  "nobody-rests"(at) {
    const ids = ["Pipe", "Guitar"].map(at.part);
    const notes = Array.from({ length: 8 }, (_, b) => ({ start: b * 1920, duration: 240, pitch: "G5", velocity: 60 }));
    return {
      song: ids.reduce(
        (s, part) =>
          make(s, {
            do: "setNotes",
            section: at.section,
            part,
            notes: notes.map((n) => ({ ...n, pitch: part === ids[0] ? "G5" : "G4" })),
          }),
        at.song,
      ),
      parts: ids,
    };
  },
  "all-together"(at) {
    const starts = [...new Set(at.list("Voice").map((n) => n.start))];
    const line = (name: string, pitch: string, other: string): Edit => ({
      do: "setNotes",
      section: at.section,
      part: at.part(name),
      notes: starts.map((start, i) => ({ start, duration: 120, pitch: i % 2 ? pitch : other, velocity: 70 })),
    });
    return {
      song: make(
        at.song,
        line("Pipe", "G5", "E5"),
        line("Guitar", "C4", "D4"),
        line("Piano", "G3", "F3"),
        line("Bass", "C2", "B1"),
      ),
      parts: ["Pipe", "Guitar", "Piano", "Bass"].map(at.part),
    };
  },
  "accents-miss"(at) {
    const part = at.part("Bass");
    const by = any(at, [120, -120]);
    return {
      song: change(
        at,
        part,
        at
          .list("Bass")
          .filter((n) => n.start > 0)
          .map((n) => ({ id: n.id, start: n.start + by, duration: 120 })),
      ),
      parts: [part],
    };
  },
  "old-key": (at) => all(at, "Voice", any(at, [-1, 1, 2])),
  capo(at) {
    const song = make(
      at.song,
      { do: "setPlaying", part: at.part("Guitar"), voicing: { capo: 3 } },
      {
        do: "setNotes",
        section: at.section,
        part: at.part("Guitar"),
        notes: [{ start: 1920 * at.pick(8), duration: 960, pitch: any(at, ["E2", "F2", "F#2"]), velocity: 60 }],
      },
    );
    return { song, parts: [at.part("Guitar")] };
  },
  // A tritone away nothing is common but two notes.
  "key-contradicted": (at) => ({
    song: make(at.song, {
      do: "setKey",
      key: `${{ C: "F#", Db: "G", D: "Ab" }[firstOf(at.song.key.split(" "))]} major`,
    }),
  }),
  breath(at) {
    const list = at.list("Voice");
    const changes = list.slice(0, 20).map((n, i) => ({ id: n.id, duration: nth(list, i + 1).start - n.start }));
    return { song: change(at, at.part("Voice"), changes), parts: [at.part("Voice")] };
  },
  "high-voice"(at) {
    const note = downbeat(at, "Voice");
    const gone = at
      .list("Voice")
      .filter((n) => n.start > note.start && n.start < note.start + 1200)
      .map((n) => n.id);
    const song = make(at.song, { do: "removeNotes", section: at.section, part: at.part("Voice"), notes: gone });
    return {
      song: make(song, {
        do: "changeNotes",
        section: at.section,
        part: at.part("Voice"),
        notes: [{ id: note.id, pitch: "Eb5", duration: 1200 }],
      }),
      notes: [note.id],
    };
  },
  "seam-held"(at) {
    const name = any(at, ["Voice", "Bass"]);
    const last = lastOf(at.list(name));
    const part = at.part(name);
    const after = at.section === firstOf(at.song.sections).id ? 1 : 0;
    const root = firstOf(nth(at.song.sections, after).chords).symbol.replace(/^([A-G][b#]?).*/, "$1");
    const octave = name === "Bass" ? 1 : 4;
    const midi = pitchMidi(`${root}${octave}`) + 1;
    const pitch = spellAt(at.song, firstOf(at.song.sections), 0, midi);
    return {
      song: change(at, part, [{ id: last.id, pitch, duration: 8 * 1920 - last.start + 480 }]),
      notes: [last.id],
    };
  },
  "seam-pickup"(at) {
    const other = sure(at.song.sections.find((s) => s.id !== at.section)).id;
    const last = lastOf(at.list("Voice"));
    const longer = change(at, at.part("Voice"), [{ id: last.id, duration: 8 * 1920 - last.start }]);
    return {
      song: make(longer, {
        do: "addNote",
        section: other,
        part: at.part("Voice"),
        note: { start: -480, duration: 240, pitch: last.pitch, velocity: 80 },
      }),
      parts: [at.part("Voice")],
    };
  },
  "seam-motion": (at) => {
    const last = lastOf(at.list("Bass"));
    return {
      song: change(at, at.part("Bass"), [{ id: last.id, pitch: "C4", duration: 8 * 1920 - last.start }]),
      notes: [last.id],
    };
  },
  "no-reason"(at) {
    const notes = at.list("Bass");
    const odd = at.pick(notes.length);
    return {
      song: change(
        at,
        at.part("Bass"),
        notes.map((n, i) => ({
          id: n.id,
          reason:
            i === odd
              ? { id: "rootOnBeat", params: { pitch: n.pitch.startsWith("C") ? "F#" : "C", chord: "C" } }
              : { id: "chordTone", params: { role: "Root", chord: "C" } },
        })),
      ),
      notes: [nth(notes, odd).id],
    };
  },
};
