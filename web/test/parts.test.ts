import { demoSongs } from "../../core/test/demos";
import { Comp, Edit, firstOf, Instrument, lastOf, must, nth, Song, sure } from "../../core/src/index";
import { edit as apply, songWith } from "../../core/test/helpers";
import { playersOf, schedule } from "../app/audio/events";
import { addPart, freeName, moveEdit, NEW_PARTS, removePart } from "../app/commands/parts";
import { useNotice } from "../app/store/notice";
import { useSelection } from "../app/store/selection";
import { songNow, useSong } from "../app/store/song";
import { bench, idle, layouts, make, section } from "./bench";

jest.mock("../app/workers/client");
jest.mock("../app/audio/sound");

const demos = demoSongs();
const names = (role: string) =>
  songNow()
    .parts.filter((p) => p.role === role)
    .map((p) => p.name);

describe("parts at their lanes", () => {
  beforeEach(() => bench(firstOf(demos)));

  test("every kind that is offered can be added, twice, under a name of its own, and its lane is open", async () => {
    for (const { role, name, instrument } of NEW_PARTS)
      for (const expected of [freeName(name), `${name} 2`, `${name} 3`].slice(0, 2)) {
        const id = sure(addPart(role));
        await idle();
        const part = sure(songNow().parts.find((p) => p.id === id));
        expect([part.role, part.instrument, useSelection.getState().lanes[id]]).toEqual([role, instrument, true]);
        expect([part.name, expected].every((n) => n.startsWith(name))).toBe(true);
      }
    expect(new Set(songNow().parts.map((p) => p.name)).size).toBe(songNow().parts.length);
    // A new part of the chords is laid out at once.
    const chords = sure(songNow().parts.find((p) => p.role === "chords" && p.id !== "keys"));
    expect(layouts(chords.id).every(Boolean)).toBe(true);
  });

  test("a part is removed with all it had, and had back from where it was removed", async () => {
    const before = songNow();
    removePart("bass");
    await idle();
    expect([names("bass"), sure(useNotice.getState().notice).text]).toEqual([[], "Bass was removed."]);
    expect(songNow().sections.every((s) => !s.notes.bass)).toBe(true);
    sure(sure(useNotice.getState().notice).act).run();
    expect(songNow()).toBe(before);
    removePart("nobody");
    expect(songNow()).toBe(before);
  });

  test("parts move past their neighbors of one register and stop at its ends", async () => {
    for (const name of ["One", "Two"]) await make({ do: "addPart", name, role: "counter", instrument: "clarinet" });
    const move = async (name: string, way: 1 | -1): Promise<boolean> => {
      const change = moveEdit(songNow().parts, sure(songNow().parts.find((p) => p.name === name)).id, way);
      if (change) await make(change);
      return change !== null;
    };
    const [first, second] = names("counter");
    expect(await move(sure(first), -1)).toBe(false);
    expect(await move(sure(first), 1)).toBe(true);
    expect(names("counter")).toEqual([second, first]);
    expect(await move(sure(first), 1)).toBe(false);
    expect(await move(sure(first), -1)).toBe(true);
    expect(names("counter")).toEqual([first, second]);
  });
});

describe("the edit that moves a part", () => {
  const song = nth(demos, 2);
  test("changes the order and nothing else, wherever it is put", () => {
    for (const part of song.parts)
      for (const before of [...song.parts.map((p) => p.id), null]) {
        const moved = apply(song, { do: "movePart", part: part.id, before });
        expect([...moved.parts].sort((a, b) => a.id.localeCompare(b.id))).toEqual(
          [...song.parts].sort((a, b) => a.id.localeCompare(b.id)),
        );
        expect({ ...moved, parts: song.parts }).toEqual(song);
        if (before === null) expect(lastOf(moved.parts).id).toBe(part.id);
        else if (before !== part.id)
          expect(nth(moved.parts, moved.parts.findIndex((p) => p.id === before) - 1).id).toBe(part.id);
      }
  });

  test("names that are not there are refused", () => {
    expect(Edit.apply(song, { do: "movePart", part: "nobody", before: null })).toMatchObject({
      ok: false,
      error: { code: "edit.part" },
    });
    expect(Edit.apply(song, { do: "movePart", part: "bass", before: "nobody" })).toMatchObject({ ok: false });
  });
});

describe("how loud what is scheduled is struck", () => {
  const strengths = (song: Song, options: Parameters<typeof schedule>[1] = {}) =>
    new Map(
      schedule(Song.realize(song, { section: "s1" }), options).events.flatMap((e) =>
        e.kind === "note" ? [[`${e.part}@${e.time.toFixed(2)}@${e.midi}`, e.velocity] as const] : [],
      ),
    );
  const chord = (pitches: string[]): Edit => ({
    do: "setNotes",
    section: "s1",
    part: "melody",
    notes: pitches.map((pitch) => ({ start: 0, duration: 480, pitch, velocity: 100 })),
  });

  test("one to three notes at once sound as they are written, more share: six are not twice as loud as three", () => {
    const of = (pitches: string[]) => [...strengths(apply(songWith({}), chord(pitches))).values()];
    expect(of(["C4"])).toEqual([100]);
    expect(of(["C4", "E4", "G4"])).toEqual([100, 100, 100]);
    const six = of(["C3", "G3", "C4", "E4", "G4", "C5"]);
    expect(six).toHaveLength(6);
    for (const v of six) expect(v).toBeCloseTo(100 / Math.SQRT2, 5);
  });

  test("what changes in an offer comes forward, the others step back a little, none beyond what can be struck", () => {
    const song = apply(songWith({ bass: ["0 C2 1"] }), chord(["C5"]));
    const plain = strengths(song);
    const heard = strengths(song, { forward: ["bass"] });
    for (const [id, v] of heard) {
      expect(id.startsWith("bass") ? v > sure(plain.get(id)) : v < sure(plain.get(id))).toBe(true);
      expect(v).toBeLessThanOrEqual(127);
    }
    expect(strengths(song, { forward: [] })).toEqual(plain);
  });

  test("players know their sound and where the middle of their range is", () => {
    for (const demo of demos)
      for (const player of playersOf(demo)) {
        const instrument = Instrument.of(sure(demo.parts.find((p) => p.id === player.id)).instrument, demo);
        expect(player.sound).toBe(instrument.sound);
        if (instrument.id !== "drums") expect(player.middle).toBeGreaterThan(20);
      }
  });
});

test("all ways of playing the chords give notes under every chord of a demo song, or say why not", async () => {
  await bench(firstOf(demos));
  for (const kind of Comp.KINDS) {
    let link;
    if (kind.id === "block") link = { kind: kind.id, top: "melody" };
    else if (kind.voices) link = { kind: kind.id, loop: true };
    else link = { kind: kind.id, from: "keys" };
    await make({ do: "addPart", name: kind.title, role: "chords", instrument: kind.fresh.instrument, link });
    const part = sure(songNow().parts.find((p) => p.name === kind.title));
    await idle();
    const real = sure(Song.realize(songNow(), { section: section().id }).parts.find((p) => p.id === part.id));
    // Fills wait for a gap of the tune; this one leaves none that is long enough.
    expect([kind.id, real.notes.length > 0]).toEqual([kind.id, kind.id !== "fills"]);
    useSong.getState().undo();
    await idle();
  }
  expect(must(Edit.apply(songNow(), { do: "setTempo", tempo: 99 })).song.tempo).toBe(99);
});
