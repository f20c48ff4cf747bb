import { type BassLine, type Edit, firstOf, lastOf, nth, sure } from "../../core/src/index";
import { demoSongs } from "../../core/test/demos";
import { acceptEdit, around, auditionEdit } from "../app/commands/audition";
import { BASS_HEARINGS, bassPartOf, bassParts, keepNotes } from "../app/commands/bass";
import { linesId, stopWriting, writeLines } from "../app/commands/written";
import { hear, heardAs, type Hearing } from "../app/commands/hearing";
import { lineHearings, lineParts } from "../app/commands/lines";
import { acceptOffer, auditionOffer, auditionWritten, isWritten } from "../app/commands/offers";
import { usePlayback } from "../app/store/playback";
import { usePreferences } from "../app/store/preferences";
import { clearLines, useResults, type Offer } from "../app/store/results";
import { songNow, useSong } from "../app/store/song";
import { bench, heard, idle, make, section } from "./bench";

jest.mock("../app/workers/client");
jest.mock("../app/audio/sound");

const demos = demoSongs();
const line = (text: string): Edit => ({ do: "setLine", section: section().id, line: text });
const problem = () => useSong.getState().problem?.message;

describe("offers", () => {
  const offer = (change: Edit, more: Partial<Offer> = {}): Offer => ({
    id: "o1",
    label: "another",
    edit: change,
    from: 1920,
    to: 3840,
    ...more,
  });
  beforeEach(async () => {
    await bench();
    await make(line("| Cmaj7 | Am7 | Dm7 | G7 |"));
  });

  test("heard: the bars around the change, voiced; taken: the same, as one step", async () => {
    const change: Edit = { do: "setChord", section: "s1", chord: nth(section().chords, 1).id, symbol: "Eb7" };
    await auditionOffer(offer(change), 1920, 7680);
    expect(heard[0]).toMatchObject({ label: "another", from: 0, to: 5760 });
    const shown = nth(firstOf(firstOf(heard).song.sections).chords, 1);
    await auditionWritten(offer(change), 1920, 7680);
    expect([nth(heard, 1).song, isWritten(sure(usePlayback.getState().preview).id)]).toEqual([songNow(), true]);
    const before = songNow();
    await acceptOffer(offer(change));
    await idle();
    expect([usePlayback.getState().preview, useResults.getState().offers]).toEqual([null, []]);
    expect(sure(sure(nth(section().chords, 1).voicings).keys).pitches).toEqual(sure(sure(shown.voicings).keys).pitches);
    useSong.getState().undo();
    expect(songNow()).toBe(before);
  });

  test("a bass goes along in listening and in taking, when that is wanted", async () => {
    await make({
      do: "setNotes",
      section: "s1",
      part: "bass",
      notes: [0, 1, 2, 3].map((i) => ({ start: i * 1920, duration: 1920, pitch: "C2", velocity: 90 })),
    });
    const change: Edit = { do: "setChord", section: "s1", chord: nth(section().chords, 1).id, symbol: "Ebmaj7" };
    const bassOf = () => sure(firstOf(lastOf(heard).song.sections).notes.bass).map((n) => n.pitch);
    usePreferences.setState({ bassFollows: false });
    await auditionOffer(offer(change), 1920, 7680);
    expect(bassOf()).toEqual(["C2", "C2", "C2", "C2"]);
    usePreferences.setState({ bassFollows: true });
    await auditionOffer(offer(change, { id: "o2" }), 1920, 7680);
    expect(bassOf()[1]).not.toBe("C2");
    expect([bassOf()[0], bassOf()[3]]).toEqual(["C2", "C2"]);
  });

  test("an offer that is complete is taken as it is, and says what is done then", async () => {
    let done = 0;
    await acceptOffer(offer({ do: "setTempo", tempo: 120 }, { whole: true, taken: () => void done++ }));
    expect([songNow().tempo, done]).toEqual([120, 1]);
    await acceptOffer(offer({ do: "setTempo", tempo: 0 }, { whole: true, taken: () => void done++ }));
    expect([done, problem()]).toEqual([1, expect.stringContaining("at least 20")]);
  });

  test("hearing the same again stops; what cannot be made is not heard", () => {
    const change: Edit = { do: "setTempo", tempo: 120 };
    auditionEdit(change, "faster", "f", { from: 0, to: 1920 });
    auditionEdit(change, "faster", "f", { from: 0, to: 1920 });
    expect([heard.length, usePlayback.getState().preview]).toEqual([1, null]);
    auditionEdit({ do: "setTempo", tempo: 0 }, "no", "n", { from: 0, to: 1920 });
    expect([heard.length, problem()]).toEqual([1, expect.stringContaining("at least 20")]);
    auditionEdit(change, "faster", "f", { from: 0, to: 1920 });
    expect(acceptEdit(change)).toBe(true);
    expect(usePlayback.getState().preview).toBeNull();
  });

  test("the bar before a place, its own and the one behind it, as far as the section goes", () => {
    const meter = { bar: 1920 } as never;
    expect(around(section(), meter, 0)).toEqual({ from: 0, to: 3840 });
    expect(around(section(), meter, 3840)).toEqual({ from: 1920, to: 7680 });
    expect(around(section(), meter, 4000)).toEqual({ from: 1920, to: 7680 });
    expect(around(section(), meter, -240)).toEqual({ from: 0, to: 3840 });
    expect(around(section(), meter, 7000)).toEqual({ from: 3840, to: 7680 });
  });
});

describe("bass", () => {
  beforeEach(() => bench(nth(demos, 3)));

  test("parts whose notes are written, the one that is worked on, and whom one hears with it", () => {
    expect(bassParts(songNow()).map((p) => p.role)).toEqual(["bass", "bass"]);
    expect(sure(bassPartOf(songNow(), "")).id).toBe("bass");
    expect(sure(bassPartOf(songNow(), nth(bassParts(songNow()), 1).id)).id).not.toBe("bass");
  });

  test("a part is heard alone, with some, with all, and the choice is known again; another choice is none of them", () => {
    const song = songNow();
    const each = (part: string, hearings: readonly Hearing[]) => {
      for (const hearing of hearings) {
        hear(song, part, hearing);
        const { solo } = usePlayback.getState();
        expect(heardAs(song, part, [...solo].reverse(), hearings)).toBe(hearing);
        if (hearing.id === "all") expect(solo).toEqual([]);
        else expect(solo).toContain(part);
      }
      expect(heardAs(song, part, ["drum:snare"], hearings)).toBeUndefined();
    };
    each("bass", BASS_HEARINGS);
    each(firstOf(lineParts(song)).id, lineHearings(song));
    expect(songNow()).toBe(song);
  });

  test("lines are written for one section and part; a state is kept under how many notes it has", async () => {
    const before = songNow();
    await writeLines("s1", "bass", 1);
    const { lines, linesFor, busy } = useResults.getState();
    expect([lines.length > 1, linesFor, busy]).toEqual([true, linesId("bass", "s1", "bass"), null]);
    expect(songNow()).toBe(before);
    expect(keepNotes("s1", "bass")).toMatchObject({
      do: "keepTake",
      name: expect.stringMatching(/^\d+ notes, /) as string,
    });
    expect(keepNotes("s1", "bass", "mine")).toMatchObject({ name: "mine" });
    await writeLines("s1", "nobody", 1);
    expect([useResults.getState().lines, useResults.getState().writeProblem]).toMatchObject([
      [],
      { code: "bass.part" },
    ]);
  });

  describe("lines come one by one", () => {
    /** A clock that goes on so much at each look: whether a step is told depends on it alone. */
    const eachLook = (ms: number) => {
      let at = 0;
      jest.spyOn(performance, "now").mockImplementation(() => (at += ms));
    };
    /** How many lines were shown, from state to state. */
    const watched = () => {
      const seen: number[] = [];
      const end = useResults.subscribe(({ lines }, before) => lines !== before.lines && seen.push(lines.length));
      return { seen, end };
    };
    afterEach(() => jest.restoreAllMocks());

    test("shown as they are found, told every 150 ms and no sooner; stopped, those that were found stay", async () => {
      clearLines();
      eachLook(150);
      const slow = watched();
      await writeLines("s1", "bass", 1);
      slow.end();
      const all = useResults.getState().lines.length;
      expect(slow.seen).toEqual(slow.seen.toSorted((a, b) => a - b));
      expect(slow.seen.length).toBeGreaterThan(2);
      expect([slow.seen[0], slow.seen.at(-1)]).toEqual([1, all]);

      clearLines();
      eachLook(149);
      const fast = watched();
      await writeLines("s1", "bass", 1);
      fast.end();
      expect(fast.seen.length).toBeLessThan(slow.seen.length);

      clearLines();
      eachLook(150);
      const end = useResults.subscribe(({ lines, stopping }) => lines.length && !stopping && stopWriting());
      await writeLines("s1", "bass", 1);
      end();
      expect([useResults.getState().lines.length, useResults.getState().writeProblem]).toEqual([1, null]);
      // What is asked after it is not stopped.
      await writeLines("s1", "bass", 1);
      expect([useResults.getState().lines.length, useResults.getState().stopping]).toEqual([all, false]);
    });

    test("a line keeps its name among the offers wherever it comes to stand; a newer request ends an older one", async () => {
      eachLook(150);
      let first: string | undefined;
      const end = useResults.subscribe(({ lines }) => (first ??= lines[0] && JSON.stringify(lines[0].notes)));
      clearLines();
      await writeLines("s1", "bass", 3);
      end();
      const { lines } = useResults.getState();
      expect(lines.map((l) => l.found).toSorted()).toEqual([...new Set(lines.map((l) => l.found))].toSorted());
      expect(JSON.stringify(lines.find((l) => l.found === 0)?.notes)).toBe(first);

      const older = writeLines("s1", "bass", 1);
      const newer = writeLines("s1", "bass", 2);
      await Promise.all([older, newer]);
      expect(useResults.getState().lines.map((l) => (l as BassLine).seed)).toEqual(lines.map(() => 2));
    });
  });
});
