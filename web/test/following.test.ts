import { demoSongs } from "../../core/test/demos";
import { type Edit, firstOf, lastOf, nth, Song, sure } from "../../core/src/index";
import { toggleSolo } from "../score/LaneLabel";
import { auditionOffer } from "../app/commands/offers";
import { auditionEdit } from "../app/commands/audition";
import { BASS_HEARINGS } from "../app/commands/bass";
import { writeLines } from "../app/commands/written";
import { hear } from "../app/commands/hearing";
import { resetPlayback, usePlayback } from "../app/store/playback";
import { useResults } from "../app/store/results";
import { showSection } from "../app/store/selection";
import { songNow, useSong } from "../app/store/song";
import { workers } from "../app/workers/sync";
import { bench, heard, idle, layouts, make, section, symbols } from "./bench";

jest.mock("../app/workers/client");
jest.mock("../app/audio/sound");

const demos = demoSongs();

const line = (text: string): Edit => ({ do: "setLine", section: section().id, line: text });
const undo = async (): Promise<void> => {
  useSong.getState().undo();
  await idle();
};

describe("what follows an edit", () => {
  test("a chord line is voiced at once, and one undo takes both back", async () => {
    await bench();
    await make(line("| Cmaj7 | Am7 | Dm7 | G7 |"));
    expect(layouts().every((l) => l.split(" ").length === 4)).toBe(true);
    await undo();
    expect(symbols()).toBe("");
    useSong.getState().redo();
    await idle();
    expect([symbols(), layouts().every(Boolean)]).toEqual(["Cmaj7 Am7 Dm7 G7", true]);
  });

  test("after one chord has changed the other layouts stay; the new one is laid out beside them", async () => {
    await bench();
    await make(line("| Cmaj7 | Am7 | Dm7 | G7 | Em7 | A7 | Dm7 | G7 |"));
    const before = layouts();
    await make({ do: "setChord", section: section().id, chord: nth(section().chords, 3).id, symbol: "Db7" });
    const after = layouts();
    expect(after.filter((l, i) => l !== before[i])).toHaveLength(1);
    expect(after[3]).not.toBe(before[3]);
    await undo();
    expect(layouts()).toEqual(before);
  });

  test("a pinned chord keeps its name and its layout, whatever happens around it and to how the part is laid out", async () => {
    await bench();
    await make(line("| Cmaj7 | Am7 | Dm7 | G7 |"));
    const [, second] = section().chords;
    await make({ do: "pinChords", section: section().id, chords: [sure(second).id], pinned: true });
    const kept = layouts()[1];
    await make(
      { do: "setChord", section: section().id, chord: firstOf(section().chords).id, symbol: "Ebmaj7" },
      { do: "setPlaying", part: "keys", voicing: { style: "shell" } },
      { do: "setPlaying", part: "keys", voicing: { register: 4 } },
    );
    expect(layouts()[1]).toBe(kept);
    expect(firstOf(layouts()).split(" ")).toHaveLength(3);
    // Let go, it is laid out like the rest.
    await make({ do: "pinChords", section: section().id, chords: [sure(second).id], pinned: false });
    await make({ do: "setPlaying", part: "keys", voicing: { register: 0 } });
    expect(nth(layouts(), 1).split(" ")).toHaveLength(3);
  });

  test("another way of laying out concerns every chord and every section, in one step", async () => {
    await bench(firstOf(demos));
    const before = songNow();
    await make({ do: "setPlaying", part: "keys", voicing: { style: "shell" } });
    for (const [i, s] of songNow().sections.entries()) {
      const three = s.chords.filter((c) => sure(sure(c.voicings).keys).pitches.length === 3).length;
      expect(three * 4).toBeGreaterThan(nth(before.sections, i).chords.length * 3);
    }
    await undo();
    expect(songNow().sections).toEqual(before.sections);
  });

  test("a tune that moves leads its block chords along", async () => {
    await bench(firstOf(demos));
    await make({ do: "addPart", name: "Row", role: "chords", instrument: "piano" });
    const id = lastOf(songNow().parts).id;
    await make({ do: "setLink", part: id, link: { kind: "block", top: "melody", loop: false } });
    const count = () => sure(section().notes[id]).length;
    const full = count();
    expect(full).toBeGreaterThan(40);
    await make({
      do: "removeNotes",
      section: section().id,
      part: "melody",
      notes: [nth(sure(section().notes.melody), 2).id],
    });
    expect(count()).toBe(full - 4);
  });
});

describe("what is only looked at or listened to changes nothing", () => {
  /** Everything of a song but the marks that an act may set. */
  const music = (song: Song) => ({
    sections: song.sections,
    parts: song.parts.map(({ muted: _, ...part }) => part),
    form: song.form,
    takes: song.takes,
  });

  for (const demo of demos) {
    test(`muting, soloing, judging, hearing: ${demo.title}`, async () => {
      await bench(demo);
      const before = music(songNow());
      for (const profile of Song.PROFILES) await make({ do: "setProfile", profile });
      for (const part of demo.parts) {
        await make({ do: "setPart", part: part.id, muted: true });
        toggleSolo(part);
        await idle();
      }
      expect(music(songNow())).toEqual(before);
      for (const part of demo.parts) await make({ do: "setPart", part: part.id, muted: false });
      resetPlayback();
      hear(songNow(), "bass", nth(BASS_HEARINGS, 1));
      await writeLines(section().id, "bass", 3);
      const [offer] = useResults.getState().lines;
      auditionEdit({ do: "setNotes", section: section().id, part: "bass", notes: sure(offer).notes }, "line 1", "x", {
        from: 0,
        to: 1920,
      });
      for (const s of demo.sections) {
        showSection(s.id);
        await idle();
      }
      expect(heard).toHaveLength(1);
      expect(music(songNow())).toEqual(before);
    });

    test(`a muted part is judged like any other: ${demo.title}`, async () => {
      await bench(demo);
      const { id } = section();
      const found = async () => {
        const { findings } = await workers.judge.analyze(id, "bass", -1);
        return findings.map((f) => f.message);
      };
      const before = await found();
      for (const part of demo.parts) {
        await make({ do: "setPart", part: part.id, muted: true });
        expect([part.name, await found()]).toEqual([part.name, before]);
      }
    });
  }

  test("an offer that is heard begins a bar before its change and leaves the song as it is", async () => {
    await bench();
    await make(line("| Cmaj7 | Am7 | Dm7 | G7 |"));
    const now = songNow();
    const chord = nth(section().chords, 2);
    await auditionOffer(
      {
        id: "o",
        label: "another",
        edit: { do: "setChord", section: section().id, chord: chord.id, symbol: "Ab7" },
        from: 3840,
        to: 5760,
      },
      1920,
      7680,
    );
    expect(songNow()).toBe(now);
    expect(heard.map((h) => [h.label, h.from, h.to])).toEqual([["another", 1920, 7680]]);
    const shown = sure(Song.section(firstOf(heard).song, section().id));
    expect([nth(shown.chords, 2).symbol, sure(sure(nth(shown.chords, 2).voicings).keys).pitches.length]).toEqual([
      "Ab7",
      4,
    ]);
    expect(sure(usePlayback.getState().preview).label).toBe("another");
  });
});

test("a song that is opened stays as it is stored, and nothing waits to be saved", async () => {
  for (const demo of demos) {
    await bench(demo);
    expect([songNow(), useSong.getState().status]).toEqual([demo, "saved"]);
  }
});
