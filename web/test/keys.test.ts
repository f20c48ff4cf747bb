import { firstOf, lastOf, nth, sure } from "../../core/src/index";
import type { Edit } from "../../core/src/index";
import { changeNotes } from "../app/commands/notes";
import { makeAxis } from "../score/axis";
import { chordKey, chooseInRow } from "../score/chordKeys";
import { laneScale, partRange } from "../score/laneScale";
import { noteKey } from "../score/noteKeys";
import { usePlayback } from "../app/store/playback";
import { usePreferences } from "../app/store/preferences";
import { partOfReal } from "../app/store/sectionData";
import { chooseChord, chooseNotes, useSelection } from "../app/store/selection";
import { useSong } from "../app/store/song";
import { bench, make, notesHeard, section, symbols } from "./bench";
import { data, key } from "./pressed";

jest.mock("../app/workers/client");
jest.mock("../app/audio/sound");
jest.mock("react-dom", () => ({ flushSync: (run: () => unknown) => run() }));

const line = (text: string): Edit => ({ do: "setLine", section: "s1", line: text });

describe("keys of a lane of notes", () => {
  const place = { section: "s1", part: "bass" };
  const notes = () => (section().notes.bass ?? []).map((n) => [n.start, n.duration, n.pitch]);
  const typed: string[] = [];
  const press = (...texts: string[]): boolean[] =>
    texts.map((text) => {
      const now = data();
      const part = partOfReal(now, "bass");
      const lane = {
        part,
        data: now,
        editable: true,
        axis: makeAxis(48, now.pickup, now.length),
        scale: laneScale(partRange(part, now.song), 150),
        select: (id: string, ids = [id]) => chooseNotes("bass", ids),
        typeWords: (id: string) => typed.push(id),
      };
      return noteKey(key(text), lane as never);
    });

  beforeEach(async () => {
    await bench();
    await make(line("| C | Am | F | G |"), {
      do: "setNotes",
      section: "s1",
      part: "bass",
      notes: [0, 1920, 3840].map((start, i) => ({
        start,
        duration: 960,
        pitch: nth(["C2", "A1", "F2"], i),
        velocity: 90,
      })),
    });
    chooseNotes("bass", [firstOf(sure(section().notes.bass)).id]);
  });

  test("arrows go from note to note, and move the chosen one by what the snap says", () => {
    press("ArrowRight");
    expect(useSelection.getState().notes.ids).toEqual([nth(sure(section().notes.bass), 1).id]);
    press("ArrowLeft", "ArrowUp");
    expect(firstOf(notes())[2]).toBe("E2");
    usePreferences.setState({ snap: "scale" });
    press("ArrowUp");
    expect(firstOf(notes())[2]).toBe("F2");
    usePreferences.setState({ snap: "semitone" });
    press("ArrowUp");
    expect(firstOf(notes())[2]).toBe("F#2");
    press("Shift+ArrowDown", "Alt+ArrowDown");
    expect(firstOf(notes())[2]).toBe("F1");
    expect(notesHeard.at(-1)).toEqual({ part: "bass", midi: 29 });
  });

  test("with Control they move it in time by the grid, with Shift they change its length", () => {
    press("Ctrl+ArrowRight", "Ctrl+ArrowRight", "Ctrl+Shift+ArrowRight");
    expect(notes()[0]).toEqual([480, 1200, "C2"]);
    press(...Array.from({ length: 20 }, () => "Ctrl+Shift+ArrowLeft"));
    expect(firstOf(notes())[1]).toBe(120);
    press(...Array.from({ length: 20 }, () => "Ctrl+ArrowLeft"));
    expect(firstOf(notes())[0]).toBe(-480);
  });

  test("Shift and arrows choose a row and give it back; Control A chooses all; W types words", () => {
    const all = sure(section().notes.bass).map((n) => n.id);
    press("Shift+ArrowRight", "Shift+ArrowRight");
    expect(useSelection.getState().notes.ids).toEqual([all[2], all[1], all[0]]);
    press("Shift+ArrowLeft");
    expect(useSelection.getState().notes.ids).toEqual([all[1], all[0]]);
    press("Ctrl+a");
    expect(new Set(useSelection.getState().notes.ids)).toEqual(new Set(all));
    press("w");
    expect(typed.at(-1)).toBe(useSelection.getState().notes.ids[0]);
  });

  test("copied, set down behind, duplicated and cut: what stands there gives way, and each is one step of undo", () => {
    const [first, second] = sure(section().notes.bass).map((n) => n.id);
    chooseNotes("bass", [sure(first), sure(second)]);
    press("Ctrl+c", "Ctrl+v");
    // Two bars behind, where the third note stood.
    expect(notes().map((n) => [n[0], n[2]])).toEqual([
      [0, "C2"],
      [1920, "A1"],
      [3840, "C2"],
      [5760, "A1"],
    ]);
    expect(useSelection.getState().notes.ids).toHaveLength(2);
    useSong.getState().undo();
    expect(notes().map((n) => n[2])).toEqual(["C2", "A1", "F2"]);
    chooseNotes("bass", [firstOf(sure(section().notes.bass)).id]);
    press("Ctrl+d");
    expect(notes().map((n) => [n[0], n[2]])).toEqual([
      [0, "C2"],
      [960, "C2"],
      [1920, "A1"],
      [3840, "F2"],
    ]);
    press("Ctrl+x");
    expect(notes().map((n) => n[0])).toEqual([0, 1920, 3840]);
    usePlayback.setState({ from: 5760 });
    press("Ctrl+v");
    expect(notes().map((n) => n[0])).toEqual([0, 1920, 3840, 5760]);
    usePlayback.setState({ from: null });
    // Nothing is set down behind the end.
    chooseNotes("bass", [lastOf(sure(section().notes.bass)).id]);
    const before = notes();
    usePlayback.setState({ from: 4 * 1920 });
    press("Ctrl+v");
    expect(notes()).toEqual(before);
    usePlayback.setState({ from: null });
  });

  test("several chosen notes are moved together and stay as far apart, at the edge as well", () => {
    chooseNotes(
      "bass",
      sure(section().notes.bass).map((n) => n.id),
    );
    press("Alt+ArrowUp", "Ctrl+ArrowRight");
    expect(notes()).toEqual([
      [240, 960, "C3"],
      [2160, 960, "A2"],
      [4080, 960, "F3"],
    ]);
    press(...Array.from({ length: 9 }, () => "Ctrl+ArrowLeft"));
    expect(notes().map((n) => n[0])).toEqual([-480, 1440, 3360]);
    press(...Array.from({ length: 40 }, () => "Ctrl+ArrowRight"));
    expect(notes().map((n) => n[0])).toEqual([3600, 5520, 7440]);
  });

  test("N writes a note behind the chosen one, Delete takes it and goes on to the next", () => {
    press("n");
    expect(notes()[1]).toEqual([960, 240, "C2"]);
    expect(useSelection.getState().notes.ids).toEqual([nth(sure(section().notes.bass), 1).id]);
    press("Delete");
    expect(notes()).toHaveLength(3);
    expect(useSelection.getState().notes.ids).toEqual([nth(sure(section().notes.bass), 1).id]);
    press("Delete", "Delete", "Delete");
    expect(notes()).toEqual([]);
    expect(press("Delete", "ArrowUp")).toEqual([false, false]);
  });

  test("in an empty lane N writes the first note, on a tone of the first chord", async () => {
    await make({ do: "setNotes", section: "s1", part: "bass", notes: [] });
    press("n");
    expect([firstOf(notes())[0], ["C", "E", "G"].includes(String(firstOf(notes())[2]).replace(/\d/, ""))]).toEqual([
      0,
      true,
    ]);
  });

  test("Escape lets go; keys that mean nothing here are left to others", () => {
    expect(press("x", "F9", "Escape")).toEqual([false, false, true]);
    expect(useSelection.getState().notes.ids).toEqual([]);
  });

  test("every press is a step of its own", () => {
    const before = useSong.getState().past.length;
    press("ArrowUp", "ArrowUp", "Ctrl+ArrowRight");
    expect(useSong.getState().past.length).toBe(before + 3);
    changeNotes(place, [{ id: firstOf(sure(section().notes.bass)).id, velocity: 50 }], { quiet: true });
    expect(useSong.getState().past.length).toBe(before + 3);
  });
});

describe("keys of the row of chords", () => {
  const focused: string[] = [];
  let renamed = 0;
  const press = (id: string, text: string): boolean =>
    chordKey(key(text), { section: "s1", id, focus: (x) => void focused.push(x), rename: () => void renamed++ });
  const id = (i: number) => nth(section().chords, i).id;

  beforeEach(async () => {
    await bench();
    await make(line("| C | Am | F | G |"));
    focused.length = 0;
    renamed = 0;
  });

  test("arrows, Home and End go through the row and stop at its ends", () => {
    press(id(0), "ArrowRight");
    press(id(1), "End");
    press(id(3), "ArrowRight");
    press(id(3), "Home");
    expect(focused).toEqual([id(1), id(3), id(3), id(0)]);
    expect(useSelection.getState()).toMatchObject({ chord: id(0), chords: [id(0)] });
  });

  test("with Shift a row is chosen from where it was begun, both ways", () => {
    chooseInRow("s1", id(1));
    press(id(1), "Shift+ArrowRight");
    press(id(2), "Shift+ArrowRight");
    expect(useSelection.getState().chords).toEqual([id(1), id(2), id(3)]);
    press(id(1), "Shift+ArrowLeft");
    expect(useSelection.getState().chords).toEqual([id(1), id(0)]);
    press(id(0), "Ctrl+a");
    expect(useSelection.getState().chords).toHaveLength(4);
  });

  test("up and down move along the scale, with Shift by semitones; the whole row when it is chosen", () => {
    press(id(1), "ArrowUp");
    expect(symbols()).toBe("C Bdim F G");
    press(id(1), "ArrowDown");
    press(id(0), "Shift+ArrowUp");
    expect(symbols()).toMatch(/^(Db|C#) Am F G$/);
    press(id(0), "Shift+ArrowDown");
    chooseChord(id(0), [id(0), id(1)]);
    press(id(0), "ArrowUp");
    expect(symbols()).toBe("Dm Bdim F G");
  });

  test("P pins and lets go, Delete removes and goes to the one before, Enter renames", () => {
    press(id(1), "p");
    expect(nth(section().chords, 1).pinned).toBe(true);
    press(id(1), "p");
    expect(nth(section().chords, 1).pinned).toBeFalsy();
    expect(press(id(1), "Ctrl+p")).toBe(false);
    press(id(1), "Enter");
    expect(renamed).toBe(1);
    const first = id(0);
    press(id(1), "Delete");
    expect([symbols(), useSelection.getState().chord, focused]).toEqual(["C F G", first, [first]]);
  });
});
