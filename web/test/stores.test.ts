import { firstOf, Meter, must, Song, sure } from "../../core/src/index";
import { demoSongs } from "../../core/test/demos";
import { tell, useNotice } from "../app/store/notice";
import {
  clearLoop,
  leaveSectionPlayback,
  resetPlayback,
  stretchOf,
  toggleLoop,
  usePlayback,
} from "../app/store/playback";
import { openTab, resetPreferences, toggleFit, usePreferences, zoomBy } from "../app/store/preferences";
import { clearLines, leaveSectionResults, resetResults, setOffers, useResults } from "../app/store/results";
import {
  chooseChord,
  chooseNoNotes,
  chooseNotes,
  resetSelection,
  setLane,
  showSection,
  useSelection,
} from "../app/store/selection";
import { sectionNow, songNow, useSong } from "../app/store/song";

const offer = { id: "a", label: "a", edit: { do: "setTempo" as const, tempo: 90 }, from: 0, to: Meter.QUARTER };

describe("selection", () => {
  beforeEach(() => resetSelection("s1"));

  test("a chord is chosen alone or at the head of a row, and let go", () => {
    chooseChord("c1");
    expect(useSelection.getState()).toMatchObject({ chord: "c1", chords: ["c1"] });
    chooseChord("c2", ["c1", "c2", "c3"]);
    expect(useSelection.getState()).toMatchObject({ chord: "c2", chords: ["c1", "c2", "c3"] });
    chooseChord(null);
    expect(useSelection.getState()).toMatchObject({ chord: null, chords: [] });
  });

  test("another section lets go what was chosen in the one before, but not the parts that are worked on, nor the lanes", () => {
    chooseChord("c1");
    chooseNotes("bass", ["n1", "n2"]);
    setLane("bass", false);
    useSelection.setState({ voicePart: "guitar", bassPart: "sub" });
    showSection("s2");
    expect(useSelection.getState()).toEqual({
      section: "s2",
      pass: null,
      here: false,
      notes: { part: "", ids: [] },
      found: null,
      chord: null,
      chords: [],
      voicePart: "guitar",
      bassPart: "sub",
      linePart: "",
      lanes: { bass: false },
    });
    resetSelection("s1");
    expect(useSelection.getState()).toMatchObject({ section: "s1", voicePart: "", bassPart: "", lanes: {} });
  });

  test("notes are chosen in one part at a time", () => {
    chooseNotes("bass", ["n1"]);
    chooseNotes("melody", ["n7"]);
    expect(useSelection.getState().notes).toEqual({ part: "melody", ids: ["n7"] });
    chooseNoNotes();
    expect(useSelection.getState().notes.ids).toEqual([]);
    setLane("keys", true);
    setLane("bass", false);
    expect(useSelection.getState().lanes).toEqual({ keys: true, bass: false });
  });
});

describe("playback", () => {
  const all = usePlayback.getState();
  beforeEach(() => usePlayback.setState(all, true));

  test("what is played is the section, or the bars that are looped", () => {
    expect(stretchOf(null, 7680)).toEqual({ from: 0, to: 7680 });
    expect(stretchOf({ on: true, from: 1920, to: 3840 }, 7680)).toEqual({ from: 1920, to: 3840 });
    expect(stretchOf({ on: false, from: 1920, to: 3840 }, 7680)).toEqual({ from: 0, to: 7680 });
  });

  test("the loop is switched off and on with its bars, and cleared with the place of the playhead", () => {
    usePlayback.setState({ wholeSong: true });
    toggleLoop(7680);
    expect(usePlayback.getState()).toMatchObject({ wholeSong: false, loop: { on: false, from: 0, to: 7680 } });
    usePlayback.setState({ loop: { on: true, from: 1920, to: 3840 }, from: 2400 });
    toggleLoop(7680);
    toggleLoop(7680);
    expect(usePlayback.getState().loop).toEqual({ on: true, from: 1920, to: 3840 });
    clearLoop();
    expect(usePlayback.getState()).toMatchObject({ loop: null, from: null });
  });

  test("another song is heard from the beginning in the way one likes to listen", () => {
    const song = firstOf(demoSongs());
    usePlayback.setState({
      solo: ["bass"],
      loop: { on: true, from: 0, to: 1 },
      wholeSong: true,
      click: true,
      countIn: true,
      speed: 0.7,
    });
    usePlayback.setState({ preview: { song, label: "x", id: "x" }, lastOffer: "x", from: 480, silent: "bass" });
    resetPlayback();
    expect(usePlayback.getState()).toEqual({ ...all, click: true, countIn: true, speed: 0.7 });
  });

  test("another section ends loop and preview, and keeps who is heard alone", () => {
    usePlayback.setState({ solo: ["bass"], loop: { on: true, from: 0, to: 1 }, from: 4, lastOffer: "x", speed: 0.5 });
    leaveSectionPlayback();
    expect(usePlayback.getState()).toEqual({ ...all, solo: ["bass"], speed: 0.5 });
  });
});

describe("results", () => {
  beforeEach(resetResults);

  test("another section ends its offers, lines and layouts; findings and harmony stand until the new ones are there", () => {
    setOffers([offer]);
    useResults.setState({
      findings: [{ id: "f" } as never],
      harmony: { chords: [] } as never,
      harmonyNumber: 4,
      voicing: { keys: {} as never },
      lines: [{ seed: 1 } as never],
      linesFor: "s1:bass",
      busy: "x",
    });
    leaveSectionResults();
    expect(useResults.getState()).toMatchObject({
      offers: [],
      harmonyNumber: -1,
      voicing: {},
      lines: [],
      linesFor: "",
      busy: null,
    });
    expect([useResults.getState().findings.length, useResults.getState().harmony]).toEqual([1, { chords: [] }]);
    resetResults();
    expect([useResults.getState().findings, useResults.getState().harmony]).toEqual([[], null]);
  });

  test("lines that were taken are done with, and so is the reason there were none", () => {
    useResults.setState({
      lines: [{ seed: 1 } as never],
      linesFor: "s1:bass",
      writeProblem: { code: "x", message: "x" },
    });
    clearLines();
    expect(useResults.getState()).toMatchObject({ lines: [], writeProblem: null, linesFor: "s1:bass" });
  });
});

describe("preferences", () => {
  beforeEach(resetPreferences);

  test("zooming by hand ends the fitting, within bounds; back and forth comes out where it began", () => {
    const { zoom } = usePreferences.getState();
    zoomBy(1);
    expect(usePreferences.getState().fit).toBeNull();
    zoomBy(-1);
    expect(usePreferences.getState().zoom).toBeCloseTo(zoom);
    for (let i = 0; i < 40; i++) zoomBy(1);
    expect(usePreferences.getState().zoom).toBe(200);
    for (let i = 0; i < 80; i++) zoomBy(-1);
    expect(usePreferences.getState().zoom).toBe(6);
  });

  test("one key fits the section to the window and gives readable bars back", () => {
    toggleFit();
    expect(usePreferences.getState().fit).toBe("section");
    toggleFit();
    expect(usePreferences.getState().fit).toBe("bars");
    zoomBy(1);
    toggleFit();
    expect(usePreferences.getState().fit).toBe("section");
  });

  test("each row of tabs remembers its own", () => {
    openTab("bass", "report");
    openTab("voicings", "chord");
    openTab("bass", "shape");
    expect(usePreferences.getState().tabs).toEqual({ bass: "shape", voicings: "chord" });
  });
});

describe("the song", () => {
  test("another version that is adopted is a step that undo takes back", () => {
    const [mine, theirs] = [must(Song.create({ title: "Mine" })), must(Song.create({ title: "Theirs" }))];
    const { open, adopt, edit, undo, redo } = useSong.getState();
    open(mine, 3);
    edit({ do: "setTempo", tempo: 120 });
    const changed = songNow();
    adopt(theirs, 7, "saved");
    expect(useSong.getState()).toMatchObject({ song: theirs, revision: 7, status: "saved", lastEdit: null });
    undo();
    expect([songNow(), useSong.getState().status]).toEqual([changed, "waiting"]);
    undo();
    expect(songNow()).toBe(mine);
    redo();
    redo();
    expect(songNow()).toBe(theirs);
  });

  test("ids of what was made come back, and what is not there is not found", () => {
    useSong.getState().open(must(Song.create({ title: "Row" })), 1);
    const made = sure(useSong.getState().make({ do: "addSection", name: "Chorus", bars: 8 }));
    expect(sectionNow(firstOf(made))).toMatchObject({ name: "Chorus", bars: 8 });
    expect(sectionNow("nobody")).toBeUndefined();
    expect(useSong.getState().make({ do: "removeSection", section: "nobody" })).toBeNull();
    expect(sure(useSong.getState().problem).message).toContain('No section has the id "nobody"');
  });

  test("an edit that changes nothing is no step", () => {
    useSong.getState().open(must(Song.create({ title: "Row", tempo: 96 })), 1);
    const { version } = useSong.getState();
    expect(useSong.getState().edit({ do: "setTempo", tempo: 96 })).toBe(true);
    expect([useSong.getState().version, useSong.getState().past, useSong.getState().status]).toEqual([
      version,
      [],
      "saved",
    ]);
  });

  test("five hundred steps are remembered, the oldest go", () => {
    useSong.getState().open(must(Song.create({ title: "Row" })), 1);
    for (let i = 0; i < 620; i++) useSong.getState().edit({ do: "setTempo", tempo: 60 + (i % 200) });
    let steps = 0;
    while (useSong.getState().past.length && steps < 1000) {
      useSong.getState().undo();
      steps++;
    }
    expect(steps).toBeGreaterThanOrEqual(500);
    expect(steps).toBeLessThan(510);
  });
});

test("a notice stands until it is taken away", () => {
  tell({ text: "Chorus was deleted.", act: { label: "Undo", run: () => undefined } });
  expect(sure(useNotice.getState().notice).text).toBe("Chorus was deleted.");
  tell(null);
  expect(useNotice.getState().notice).toBeNull();
});
