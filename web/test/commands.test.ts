import { type Drum, type Edit, firstOf, lastOf, Meter, must, nth, Pitch, Song, sure } from "../../core/src/index";
import { demoSongs } from "../../core/test/demos";
import { afterText, chordsNow, put, putEdit, rename } from "../app/commands/chords";
import { hitsNow, paintHits, setHit, setMain, usualVelocity } from "../app/commands/drums";
import { fileName, importFile } from "../app/commands/files";
import { addNote, changeNotes, notesNow, removeNotes, spellHere } from "../app/commands/notes";
import { addSection, beyondText, removeSection, setBars } from "../app/commands/sections";
import {
  invertChord,
  moveRegister,
  nextInstrument,
  nextStyle,
  soundLayout,
  stylesFor,
  voicePartOf,
} from "../app/commands/voicings";
import { useNotice } from "../app/store/notice";
import { chooseChord, showSection, useSelection } from "../app/store/selection";
import type { SectionData } from "../app/store/sectionData";
import { songNow, useSong } from "../app/store/song";
import { bench, idle, layouts, make, notesHeard, section, symbols } from "./bench";

jest.mock("../app/workers/client");
jest.mock("../app/audio/sound");

const demos = demoSongs();

const line = (text: string): Edit => ({ do: "setLine", section: section().id, line: text });
/** As much of the score's data as the commands read. */
const data = (): SectionData => ({ section: section(), meter: { bar: 1920 } }) as unknown as SectionData;
const problem = () => useSong.getState().problem?.message;

describe("chords", () => {
  beforeEach(async () => {
    await bench();
    await make(line("| C | Am | F | G |"));
  });

  test("a chord goes in place of the one in focus, into its second half, or into a new bar at the end", () => {
    chooseChord(nth(section().chords, 1).id);
    expect(putEdit(data(), "E7", "instead")).toEqual({
      do: "setChord",
      section: "s1",
      chord: nth(section().chords, 1).id,
      symbol: "E7",
    });
    expect(putEdit(data(), "E7", "after")).toMatchObject({
      do: "setChords",
      from: 2880,
      to: 3840,
      chords: [{ start: 2880, duration: 960 }],
    });
    expect(afterText(data(), nth(section().chords, 1).id)).toBe("in the second half of Am");
    chooseChord(lastOf(section().chords).id);
    expect(putEdit(data(), "E7", "after")).toMatchObject({ from: 7680, to: 9600 });
    expect(afterText(data(), lastOf(section().chords).id)).toBe("in a new bar at the end");
    expect(afterText({ ...data(), section: { ...section(), chords: [] } }, null)).toBe("in bar 1");
  });

  test("what was put takes the focus and is heard alone in the sound of the piano", () => {
    chooseChord(firstOf(section().chords).id);
    expect(put(data(), "E7", "after")).toBe(true);
    expect(symbols()).toBe("C E7 Am F G");
    expect(useSelection.getState().chord).toBe(nth(section().chords, 1).id);
    expect(notesHeard.length).toBeGreaterThan(2);
    expect(notesHeard.every((n) => n.part === "keys")).toBe(true);
    expect(new Set(notesHeard.map((n) => n.midi % 12))).toEqual(
      new Set([4, 8, 11, 2].filter((pc) => notesHeard.some((n) => n.midi % 12 === pc))),
    );
  });

  test("readings go with a chord one is not sure of", () => {
    chooseChord(firstOf(section().chords).id);
    put(data(), "Am7", "instead", { readings: ["Am7", "C6"] });
    expect(chordsNow("s1")[0]).toMatchObject({ symbol: "Am7", readings: ["Am7", "C6"] });
    chooseChord(lastOf(section().chords).id);
    put(data(), "D6", "after", { readings: ["D6", "Bm7"] });
    expect(chordsNow("s1").at(-1)).toMatchObject({ symbol: "D6", readings: ["D6", "Bm7"], start: 7680 });
  });

  test("a symbol that cannot be read changes nothing and says so", () => {
    const before = songNow();
    expect(rename("s1", firstOf(section().chords).id, "Hmm")).toBe(false);
    expect(problem()).toContain('"Hmm"');
    expect(songNow()).toBe(before);
    expect(chordsNow("nobody")).toEqual([]);
  });
});

describe("voicings", () => {
  beforeEach(() => bench(firstOf(demos)));

  test("the chord in focus is inverted both ways, pinned and heard", () => {
    const id = nth(section().chords, 1).id;
    chooseChord(id);
    const before = nth(layouts(), 1);
    invertChord(1);
    expect(sure(sure(nth(section().chords, 1).voicings).keys).pinned).toBe(true);
    const lowest = (text: string) => Pitch.midi(firstOf(text.split(" ")));
    expect(lowest(nth(layouts(), 1))).toBeGreaterThan(lowest(before));
    expect(notesHeard.slice(-4).map((n) => n.midi)).toEqual(nth(layouts(), 1).split(" ").map(Pitch.midi));
    invertChord(-1);
    expect(layouts()[1]).toBe(before);
    useSong.getState().undo();
    useSong.getState().undo();
    expect(sure(sure(nth(section().chords, 1).voicings).keys).pinned).toBeUndefined();
  });

  test("style, register and instrument go on by one key and back again", async () => {
    const part = () => sure(voicePartOf(songNow()));
    const styles = stylesFor(songNow(), part()).map((s) => s.id);
    const at = styles.indexOf(part().playing.voicing?.style ?? "keyboard");
    nextStyle(1);
    expect(part().playing.voicing?.style).toBe(styles[(at + 1) % styles.length]);
    nextStyle(-1);
    expect(part().playing.voicing?.style).toBe(styles[at]);
    const register = part().playing.voicing?.register ?? 0;
    moveRegister(1);
    expect(part().playing.voicing?.register).toBe(register + 4);
    for (let i = 0; i < 12; i++) moveRegister(-1);
    expect(part().playing.voicing?.register).toBe(-24);
    const before = part().instrument;
    nextInstrument(1);
    expect(part().instrument).not.toBe(before);
    nextInstrument(-1);
    expect(part().instrument).toBe(before);
    await idle();
  });

  test("a chord sounds as it is laid out", () => {
    const event = nth(section().chords, 2);
    notesHeard.length = 0;
    soundLayout(songNow(), event);
    expect(notesHeard.map((n) => n.midi)).toEqual(sure(sure(event.voicings).keys).pitches.map(Pitch.midi));
    soundLayout(songNow(), undefined);
    expect(notesHeard).toHaveLength(sure(sure(event.voicings).keys).pitches.length);
  });

  test("past the end of the keyboard there is no inversion, and that is said", () => {
    chooseChord(firstOf(section().chords).id);
    for (let i = 0; i < 60 && !problem(); i++) invertChord(1);
    expect(problem()).toMatch(/There is no higher layout of/);
  });
});

describe("drums", () => {
  beforeEach(() => bench());
  const starts = (drum: Drum) => hitsNow("s1", drum).map((h) => h.start);

  test("a row is painted and cleared as one step; cells that are so already stay as loud as they are", () => {
    setHit("s1", "kick", 480, { velocity: 40 });
    paintHits("s1", "kick", [0, 480, 960], { on: true, quiet: false });
    expect(hitsNow("s1", "kick").map((h) => [h.start, h.velocity])).toEqual([
      [0, usualVelocity("kick", 0)],
      [480, 40],
      [960, usualVelocity("kick", 960)],
    ]);
    useSong.getState().undo();
    expect(starts("kick")).toEqual([480]);
    paintHits("s1", "kick", [0, 240, 480], { on: false, quiet: false });
    expect(starts("kick")).toEqual([]);
    const { version } = useSong.getState();
    paintHits("s1", "kick", [0, 240], { on: false, quiet: false });
    expect(useSong.getState().version).toBe(version);
  });

  test("off the quarter a hit is softer than on it, and loudness stays between 1 and 127", () => {
    expect(usualVelocity("closedHat", 240)).toBeLessThan(usualVelocity("closedHat", Meter.QUARTER));
    setHit("s1", "snare", 480, { velocity: 400 });
    expect(firstOf(hitsNow("s1", "snare")).velocity).toBe(127);
    setHit("s1", "snare", 480, { velocity: -20 });
    expect(firstOf(hitsNow("s1", "snare")).velocity).toBe(1);
    setHit("s1", "snare", 480, { velocity: null });
    expect(starts("snare")).toEqual([]);
  });

  test("from the first mark on the marks count, not the rule", () => {
    const kicks = [0, 960, 1440].map((start, i) => ({ start, velocity: 100, main: i < 2 })) as never;
    setMain("s1", kicks, [1440], true);
    expect(section().groove.accents).toEqual([0, 960, 1440]);
    setMain("s1", kicks, [0], false);
    expect(section().groove.accents).toEqual([960]);
  });
});

describe("notes", () => {
  const place = { section: "s1", part: "bass" };
  beforeEach(async () => {
    await bench();
    await make(line("| Cm | Ab | Eb | Bb |"));
  });

  test("a note is written, chosen and heard; changed, and removed", () => {
    const id = sure(addNote(place, { start: 0, duration: 480, pitch: "C2" }));
    expect([useSelection.getState().notes, notesHeard.at(-1)]).toEqual([
      { part: "bass", ids: [id] },
      { part: "bass", midi: 36 },
    ]);
    expect(notesNow(place)).toMatchObject([{ id, midi: 36, velocity: 90 }]);
    expect(changeNotes(place, [{ id, pitch: "Eb2", start: 240 }])).toBe(true);
    expect(notesNow(place)).toMatchObject([{ id, midi: 39, start: 240 }]);
    expect(removeNotes(place, [id])).toBe(true);
    expect(notesNow(place)).toEqual([]);
    expect([removeNotes(place, [id]), problem()]).toEqual([false, `No note of this part has the id "${id}"`]);
  });

  test("past the end of the section no note can be written", () => {
    expect(addNote(place, { start: 7680, duration: 480, pitch: "C2" })).toBeNull();
    expect(problem()).toContain("ends with bar 4");
    expect(notesHeard).toEqual([]);
  });

  test("a pitch is named as the chord of the moment names it", () => {
    expect([spellHere(section(), 0, 39), spellHere(section(), 1920, 44), spellHere(section(), 0, 200)]).toEqual([
      "Eb2",
      "Ab2",
      "G9",
    ]);
  });
});

describe("sections", () => {
  beforeEach(() => bench(firstOf(demos)));
  const names = () => songNow().sections.map((s) => s.name);

  test("a new one and a copy come into view", () => {
    addSection();
    expect([names(), useSelection.getState().section]).toEqual([
      ["Verse", "Chorus", "Section 3"],
      nth(songNow().sections, 2).id,
    ]);
    addSection(section());
    expect(names().at(-1)).toBe("Verse again");
    expect(nth(songNow().sections, 3).chords.map((c) => c.symbol)).toEqual(section().chords.map((c) => c.symbol));
  });

  test("one that is deleted can be had back from where it was done, until something else was done", () => {
    const before = songNow();
    showSection(nth(before.sections, 1).id);
    removeSection(nth(before.sections, 1));
    expect([names(), sure(useNotice.getState().notice).text]).toEqual([["Verse"], "Chorus was deleted."]);
    sure(sure(useNotice.getState().notice).act).run();
    expect([songNow(), useSelection.getState().section]).toEqual([before, nth(before.sections, 1).id]);
    removeSection(nth(before.sections, 1));
    useSong.getState().edit({ do: "setTempo", tempo: 77 });
    expect(useNotice.getState().notice).toBeNull();
  });

  test("making one shorter says in one line what is kept, and undo brings it back", () => {
    const before = songNow();
    const { id, bars } = section();
    expect(setBars(id, 2)).toBe(true);
    expect(sure(useNotice.getState().notice).text).toMatch(
      /^\d+ chords, \d+ notes and \d+ drum hits past bar 2 are kept and not heard; a longer Verse brings them back\.$/,
    );
    expect(beyondText(section())).toBe(sure(useNotice.getState().notice).text);
    expect(setBars(id, bars)).toBe(true);
    expect(beyondText(section())).toBeNull();
    useSong.getState().undo();
    useSong.getState().undo();
    expect(songNow()).toBe(before);
    expect([setBars(id, 0), setBars("nobody", 3)]).toEqual([false, false]);
  });
});

test("a file is named after its song, and an unreadable one is refused with its name", async () => {
  const named = (title: string) => fileName(must(Song.create({ title })), "mid");
  expect([named("Lanterns, on Row Nine!"), named("Über den Äpfeln"), named("…")]).toEqual([
    "lanterns-on-row-nine.mid",
    "über-den-äpfeln.mid",
    "song.mid",
  ]);
  await expect(importFile(new File(["{"], "x.json"))).rejects.toMatchObject({
    status: 422,
    message: expect.stringContaining("x.json: This is not JSON") as string,
  });
});
