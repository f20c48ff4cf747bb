import { firstOf, lastOf, nth, sure } from "../../src/base/list";
import { BEND_RANGE, GM_DRUMS, writeMidi } from "../../src/files/midi";
import { drumAsBass } from "../../src/write/bass/fromDrum";
import { must } from "../../src/base/result";
import { midiFrequency, pitchMidi } from "../../src/theory/pitch/pitch";
import { realize } from "../../src/song/realize";
import type { Song } from "../../src/song/schema/song";
import { demoSongs } from "../demos";
import { edit, songWith } from "../helpers";

/** An independent reader from the registry (midifile, MIT). */
interface ReadEvent {
  delta: number;
  type: number;
  subtype: number;
  channel?: number;
  param1?: number;
  param2?: number;
  data?: number[];
  tempo?: number;
  key?: number;
  scale?: number;
}
interface Reader {
  header: { getFormat(): number; getTicksPerBeat(): number; getTracksCount(): number };
  getTrackEvents(i: number): ReadEvent[];
}
// eslint-disable-next-line @typescript-eslint/no-require-imports
const MIDIFile = require("midifile") as new (buffer: ArrayBuffer) => Reader;

const read = (bytes: Uint8Array) => {
  const file = new MIDIFile(bytes.slice().buffer);
  const tracks = Array.from({ length: file.header.getTracksCount() }, (_, i) => {
    let at = 0;
    return file.getTrackEvents(i).map((e) => ({ ...e, at: (at += e.delta) }));
  });
  return { file, tracks };
};
type Timed = ReadEvent & { at: number };

/** Notes of a track as "tick–tick pitch velocity channel". */
function notesOf(track: Timed[]): string[] {
  const open = new Map<number, Timed>();
  const out: string[] = [];
  for (const e of track) {
    if (e.type !== 0x8) continue;
    if (e.subtype === 0x9 && sure(e.param2) > 0) open.set(sure(e.param1), e);
    else if (e.subtype === 0x8 || e.subtype === 0x9) {
      const from = open.get(sure(e.param1));
      if (!from) throw new Error(`note ${e.param1} ends without a beginning`);
      open.delete(sure(e.param1));
      out.push(`${from.at}–${e.at} ${e.param1} ${from.param2} ${from.channel}`);
    }
  }
  if (open.size) throw new Error("a note never ends");
  return out.sort();
}
const nameOf = (track: Timed[]): string =>
  String.fromCharCode(...(track.find((e) => e.type === 0xff && e.subtype === 0x03)?.data ?? []));

test("a tuned drum is a track of its own, with its pitches and slides, and no longer on the drum channel", () => {
  let song = songWith({
    line: "| C | F |",
    kicks: [
      [0, 100],
      [2, 90],
      [4, 100],
    ],
    bass: ["0 C2 2", "2 G1 2", "4 F1 4"],
  });
  const made = drumAsBass(song, "s1", "bass", { drum: "kick", how: { rhythm: "drum", glides: true, instead: false } });
  song = edit(song, must(made), { do: "setHit", section: "s1", drum: "snare", start: 480, velocity: 80 });
  const { tracks } = read(writeMidi(song, { swing: "straight" }));
  const kick = sure(tracks.find((t) => nameOf(t) === "kick, tuned"));
  // Tails end fifteen ticks before the next hit.
  expect(notesOf(kick).map((n) => n.replace(/ \d+$/, ""))).toEqual(
    ["0–945 36 100", "1920–3825 29 100", "960–1905 31 90"].sort(),
  );
  expect(kick.filter((e) => e.type === 0x8 && e.subtype === 0xe).length).toBeGreaterThan(10);
  expect(new Set(kick.filter((e) => e.type === 0x8).map((e) => e.channel))).not.toContain(9);
  const drums = sure(tracks.find((t) => t.some((e) => e.type === 0x8 && e.channel === 9)));
  expect(notesOf(drums).map((n) => n.split(" ")[1])).toEqual(["38"]);
});

function golden(): Song[] {
  const odd = edit(
    songWith({
      key: "F# minor",
      meter: "7/8 3+2+2",
      line: "| F#m | D/F# |",
      kicks: [
        [0, 100],
        [1.5, 90],
      ],
      bass: ["0 F#1 1", "1 A1 0.5", "3.5 D2 3"],
      melody: ["-0.5 C#5 0.5", "0 F#5 0.3333333", "0.3333333 A5 0.3333333"],
    }),
    { do: "setSwing", ratio: 0.6, unit: 16 },
  );
  const gliding = edit(odd, {
    do: "setNotes",
    section: "s1",
    part: "bass",
    notes: [
      { start: 0, duration: 480, pitch: "C2", velocity: 90, slide: { kind: "glide", to: "G2" }, offset: 12 },
      { start: 480, duration: 240, pitch: "G2", velocity: 70 },
    ],
  });
  const moved: Song = {
    ...gliding,
    sections: [{ ...firstOf(gliding.sections), key: "Bb major", tempo: 61.5 }],
    form: [
      { id: "o1", sectionId: "s1" },
      { id: "o2", sectionId: "s1", transpose: -5 },
    ],
  };
  return [...demoSongs(), odd, gliding, moved];
}

test.each(
  golden().flatMap((song) => (["straight", "played"] as const).map((swing) => [song.title, swing, song] as const)),
)("%s, %s: every note is read back by an independent reader", (_, swing, song) => {
  const real = realize(song);
  const { file, tracks } = read(writeMidi(song, { swing }));
  expect([file.header.getFormat(), file.header.getTicksPerBeat(), tracks.length]).toEqual([
    1,
    480,
    song.parts.length + 1,
  ]);
  const first = firstOf(real.sections);
  const earliest = Math.min(
    0,
    ...real.parts.flatMap((p) => p.notes.map((n) => (swing === "played" ? n.played : n.start))),
  );
  const shift = Math.ceil(-earliest / first.meter.bar) * first.meter.bar;
  real.parts.forEach((part, i) => {
    const track = nth(tracks, i + 1);
    expect(nameOf(track)).toBe(part.name);
    if (part.role === "drums") {
      const begins = track
        .filter((e) => e.type === 0x8 && e.subtype === 0x9)
        .map((e) => `${e.at} ${e.param1} ${e.param2} ${e.channel}`)
        .sort();
      expect(begins).toEqual(
        real.hits
          .map(
            (h) =>
              `${Math.round((swing === "played" ? h.played : h.start) + shift)} ${GM_DRUMS[h.drum]} ${h.velocity} 9`,
          )
          .sort(),
      );
      return;
    }
    const expected = part.notes.map((n) => {
      const again = part.notes.find(
        (m) => m !== n && m.midi === n.midi && m.start > n.start && m.start < n.start + n.duration,
      );
      const from = swing === "played" ? n.played : n.start;
      const nextFrom = () => {
        if (again) {
          if (swing === "played") return again.played;
          return again.start;
        }
        return Infinity;
      };
      const to = Math.min(swing === "played" ? n.playedEnd : n.start + n.duration, nextFrom());
      return `${Math.round(from + shift)}–${Math.round(to + shift)} ${n.midi} ${n.velocity} ${i >= 9 ? i + 1 : i}`;
    });
    expect(notesOf(track)).toEqual(expected.sort());
    // A glide bends by the interval and is back at zero for the next note.
    const bends = track
      .filter((e) => e.type === 0x8 && e.subtype === 0xe)
      .map((e) => (sure(e.param2) << 7) + sure(e.param1) - 8192);
    const glides = part.notes.filter((n) => n.glideTo);
    if (glides.length) {
      const semitones = pitchMidi(sure(lastOf(glides).glideTo)) - lastOf(glides).midi;
      expect(Math.max(...bends.map(Math.abs))).toBeCloseTo((Math.abs(semitones) * 8192) / BEND_RANGE, -1);
      expect(bends.at(-1)).toBe(0);
    } else expect(bends).toEqual([]);
  });
  const meta = (subtype: number) => sure(firstOf(tracks).find((e) => e.type === 0xff && e.subtype === subtype));
  expect(meta(0x51).tempo).toBe(Math.round(60_000_000 / first.tempo));
  expect([meta(0x58).param1, 2 ** sure(meta(0x58).param2)]).toEqual([first.meter.count, first.meter.unit]);
  // The reader gives the signed byte of the signature as an unsigned one.
  expect([(sure(meta(0x59).key) << 24) >> 24, meta(0x59).scale]).toEqual([
    first.key.signature,
    first.key.mode === "minor" ? 1 : 0,
  ]);
});

test("pitch and frequency (ISO 16:1975, MIDI 1.0)", () => {
  expect([pitchMidi("A4"), pitchMidi("C4"), pitchMidi("B#3"), pitchMidi("Cb4")]).toEqual([69, 60, 60, 59]);
  expect(midiFrequency(69)).toBe(440);
  expect(midiFrequency(60)).toBeCloseTo(261.626, 3);
});
