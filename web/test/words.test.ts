import {
  Chord,
  firstOf,
  Instrument,
  lastOf,
  Pitch,
  Song,
  sure,
  type Syllable,
  type WordBook,
  Words,
} from "../../core/src/index";
import { addCopies, copyNotes, cutNotes, duplicateNotes, pasteNotes, useClipboard } from "../app/commands/clipboard";
import { layEdit, proposedNotes } from "../app/commands/words";
import { useNotice } from "../app/store/notice";
import { useSelection } from "../app/store/selection";
import { edit, songNow, useSong } from "../app/store/song";
import { bench, make, section } from "./bench";

jest.mock("../app/workers/client");
jest.mock("../app/audio/sound");

const SOUNDS: Record<string, string> = {
  lanterns: "L AE1 N T ER0 N Z",
  above: "AH0 B AH1 V",
  orchard: "AO1 R CH ER0 D",
};
const BOOK: WordBook = {
  hyphenate: (w) => [w],
  spoken: (w) => (SOUNDS[w] ? Words.sounds(sure(SOUNDS[w])) : undefined),
  stressed: "first",
  light: new Set(["the", "to"]),
};
const lines = (...texts: string[]): Syllable[][] => texts.map((t) => Words.syllables(t, BOOK));
const melody = () => sure(songNow().parts.find((p) => p.id === "melody"));
const place = { section: "s1", part: "melody" };

beforeEach(async () => {
  await bench();
  await make({ do: "setLine", section: "s1", line: "| C | Am | F | G |" });
  useClipboard.setState({ clip: null });
  useNotice.setState({ notice: null });
});

test(
  "words that come first stand on tones of their chords, inside the voice, with their syllables; what does not " +
    "fit is counted",
  async () => {
    const { notes, left } = proposedNotes(songNow(), section(), melody(), {
      lines: lines("Lanterns hang above the orchard row", "orchard above"),
      verse: 1,
    });
    expect([left, notes.map((n) => n.lyrics)]).toEqual([
      0,
      "Lan- terns hang a- bove the or- chard row or- chard a- bove".split(" ").map((w) => ["", w]),
    ]);
    const [low, high] = Instrument.range(Instrument.of(melody().instrument, songNow()).comfortable);
    for (const n of notes) {
      const chord = sure(Chord.of(sure(section().chords.findLast((c) => c.start <= n.start)).symbol));
      expect(Chord.pitchClasses(chord)).toContain(Pitch.midi(n.pitch) % 12);
      expect([Pitch.midi(n.pitch) >= low, Pitch.midi(n.pitch) <= high]).toEqual([true, true]);
    }
    // Stressed syllables are sung a little louder.
    const by = new Map(notes.map((n) => [sure(n.lyrics)[1], n.velocity]));
    expect(by.get("Lan-")).toBeGreaterThan(sure(by.get("terns")));
    await make({ do: "setNotes", section: "s1", part: "melody", notes });
    expect(Song.parse(JSON.parse(JSON.stringify(songNow()))).ok).toBe(true);
    const many = proposedNotes(songNow(), section(), melody(), {
      lines: Array.from({ length: 9 }, () => firstOf(lines("orchard above the orchard"))),
      verse: 0,
    });
    expect(many.left).toBeGreaterThan(0);
    expect(many.notes.length + many.left).toBe(9 * 7);
  },
);

test("words are laid from the chosen note on, in one step; what finds no note is left", async () => {
  await make({
    do: "setNotes",
    section: "s1",
    part: "melody",
    notes: [0, 480, 960].map((start) => ({ start, duration: 480, pitch: "E4", velocity: 90 })),
  });
  const { edit: change, left } = layEdit(section(), "melody", ["Lan-", "terns", "hang"], { from: 1, verse: 0 });
  expect([edit(change), left]).toEqual([true, ["hang"]]);
  expect(sure(section().notes.melody).map((n) => n.lyrics ?? null)).toEqual([null, ["Lan-"], ["terns"]]);
  useSong.getState().undo();
  expect(sure(section().notes.melody).every((n) => !n.lyrics)).toBe(true);
});

describe("the clipboard", () => {
  const ids = () => (section().notes.melody ?? []).map((n) => n.id);
  const told = () => useNotice.getState().notice?.text ?? "";
  beforeEach(() =>
    make({
      do: "setNotes",
      section: "s1",
      part: "melody",
      notes: [0, 480].map((start) => ({ start, duration: 480, pitch: "E4", velocity: 90, lyrics: ["la"] })),
    }),
  );

  test("what is copied can be set down in another part and section, with its words; nothing is copied of nothing", async () => {
    expect([copyNotes(place, []), pasteNotes(place, [])]).toEqual([false, false]);
    expect(copyNotes(place, ids())).toBe(true);
    expect(told()).toBe("2 notes copied. Ctrl V sets them down.");
    expect(pasteNotes({ section: "s1", part: "bass" }, [])).toBe(true);
    expect(sure(section().notes.bass).map((n) => [n.start, n.pitch, n.lyrics])).toEqual([
      [0, "E4", ["la"]],
      [480, "E4", ["la"]],
    ]);
    expect(useSelection.getState().notes).toEqual({ part: "bass", ids: sure(section().notes.bass).map((n) => n.id) });
    // The notes have ids of their own.
    expect(new Set([...ids(), ...sure(section().notes.bass).map((n) => n.id)]).size).toBe(4);
  });

  test("cut goes and stays on the clipboard; from where it is told it comes back", () => {
    expect(cutNotes(place, [firstOf(ids())])).toBe(true);
    expect(section().notes.melody).toHaveLength(1);
    expect(told()).toContain("1 note cut");
    sure(sure(useNotice.getState().notice).act).run();
    expect(section().notes.melody).toHaveLength(2);
    expect(sure(useClipboard.getState().clip).notes).toHaveLength(1);
  });

  test("a copy right behind; copies that are dragged; nothing behind the end", () => {
    expect(duplicateNotes(place, ids())).toBe(true);
    expect(sure(section().notes.melody).map((n) => n.start)).toEqual([0, 480, 960, 1440]);
    const [first] = ids();
    expect(addCopies(place, [{ id: sure(first), start: 2880, pitch: "G4" }])).toBe(true);
    expect(sure(section().notes.melody).at(-1)).toMatchObject({ start: 2880, pitch: "G4", lyrics: ["la"] });
    expect(addCopies(place, [{ id: "nobody" }])).toBe(false);
    const last = section().bars * 1920 - 480;
    expect(addCopies(place, [{ id: sure(first), start: last }])).toBe(true);
    expect(duplicateNotes(place, [lastOf(ids())])).toBe(false);
    expect(told()).toContain("There is no room behind it");
  });
});
