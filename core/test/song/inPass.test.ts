import { firstOf, nth, sure } from "../../src/base/list";
import fc from "fast-check";
import { applyEdit } from "../../src/song/edits";
import { formOf } from "../../src/song/form";
import { must } from "../../src/base/result";
import { parseSong } from "../../src/song/document";
import { passView } from "../../src/song/passView";
import { realize } from "../../src/song/realize";
import type { Edit } from "../../src/song/edits/list";
import type { RealizedSong } from "../../src/song/realized";
import type { Song } from "../../src/song/schema/song";
import { withFollowing } from "../../src/judge/follow/follow";
import { realizePlace } from "../../src/song/realize";
import { anyEdit } from "../anyEdit";
import { demoSongs } from "../demos";
import { edit, songWith } from "../helpers";

/** A chorus of four bars that is played three times, the last time a tone higher. */
const thrice = (): Song =>
  edit(
    songWith({
      line: "| C | F | G7 | C |",
      melody: ["0 E4 4", "4 F4 4", "8 D4 4", "12 E4 4"],
      bass: ["0 C2 4", "4 F2 4", "8 G2 4", "12 C2 4"],
      kicks: [
        [0, 100],
        [12, 100],
      ],
    }),
    { do: "addPass", section: "s1" },
    { do: "addPass", section: "s1" },
  );

/** What a pass sounds like: everything but the ids. */
const sound = (real: RealizedSong, pass?: string): string =>
  JSON.stringify([
    real.chords.filter((c) => !pass || c.pass === pass).map((c) => [c.start, c.duration, c.symbol]),
    real.parts.map((p) =>
      p.notes.filter((n) => !pass || n.pass === pass).map((n) => [n.played, n.playedEnd, n.midi, n.velocity, n.pitch]),
    ),
    real.hits.filter((h) => !pass || h.pass === pass).map((h) => [h.drum, h.played, h.velocity, h.midi]),
  ]);
const passSound = (song: Song, id: string) => sound(realizePlace(song, { kind: "pass", id }, false));

describe("an edit of one pass", () => {
  test("here only: the bar is the pass's own, all other passes and the section stay; given back, it is gone", () => {
    const song = thrice();
    const [first, second, third] = song.form.map((p) => p.id) as [string, string, string];
    const line: Edit = { do: "setLine", section: "s1", line: "| C | F | G7 | A7 |" };
    const own = edit(song, { do: "inPass", pass: second, here: true, edit: line });
    expect(own.sections).toEqual(song.sections);
    expect(nth(own.form, 1).own).toEqual([
      { bars: [3, 4], chords: [expect.objectContaining({ symbol: "A7", start: 5760, duration: 1920 })] },
    ]);
    expect(
      realize(own)
        .chords.map((c) => c.symbol)
        .join(" "),
    ).toBe("C F G7 C C F G7 A7 C F G7 C");
    expect([first, third].map((id) => passSound(own, id))).toEqual([first, third].map((id) => passSound(song, id)));
    expect(nth(formOf(own), 1).own).toEqual(["bar 4 its own"]);
    expect(edit(own, { do: "giveBack", pass: second })).toEqual({ ...song, nextId: own.nextId });
  });

  test("the section edited through a pass changes every pass but for the bars they own", () => {
    const song = thrice();
    const [, second, third] = song.form.map((p) => p.id) as [string, string, string];
    const own = edit(
      song,
      { do: "inPass", pass: second, here: true, edit: { do: "setLine", section: "s1", line: "| C | F | G7 | A7 |" } },
      { do: "inPass", pass: second, edit: { do: "setLine", section: "s1", line: "| Am | F | G7 | D7 |" } },
    );
    expect(
      realize(own)
        .chords.map((c) => c.symbol)
        .join(" "),
    ).toBe("Am F G7 C Am F G7 D7 Am F G7 C");
    expect(sure(own.form.find((p) => p.id === third)).own).toBeUndefined();
  });

  test("what is made like the section again is no longer the pass's own", () => {
    const song = thrice();
    const pass = nth(song.form, 1).id;
    const [id] = [nth(sure(firstOf(song.sections).notes.bass), 3).id];
    const change = (pitch: string): Edit => ({
      do: "inPass",
      pass,
      here: true,
      edit: { do: "changeNotes", section: "s1", part: "bass", notes: [{ id, pitch }] },
    });
    const own = edit(song, change("B1"));
    expect(nth(own.form, 1).own).toEqual([
      { bars: [3, 4], notes: { bass: [expect.objectContaining({ id, pitch: "B1" })] } },
    ]);
    expect(edit(own, change("C2")).form).toEqual(song.form);
  });

  test("a pass in another key is edited as it sounds", () => {
    const song = thrice();
    const pass = nth(song.form, 2).id;
    const higher = edit(song, { do: "setPass", pass, transpose: 2 });
    const view = passView(higher, pass);
    expect(firstOf(view.sections).chords.map((c) => c.symbol)).toEqual(["D", "G", "A7", "D"]);
    expect(firstOf(view.sections).key).toBe("D major");
    const own = edit(higher, {
      do: "inPass",
      pass,
      here: true,
      edit: { do: "setLine", section: "s1", line: "| D | G | A7 | Bm |" },
    });
    expect(sure(firstOf(sure(nth(own.form, 2).own)).chords).map((c) => c.symbol)).toEqual(["Am"]);
    expect(
      realize(own)
        .chords.slice(-4)
        .map((c) => c.symbol),
    ).toEqual(["D", "G", "A7", "Bm"]);
    const all = edit(higher, {
      do: "inPass",
      pass,
      edit: { do: "setLine", section: "s1", line: "| D | Em7 | A7 | D |" },
    });
    expect(firstOf(all.sections).chords.map((c) => c.symbol)).toEqual(["C", "Dm7", "G7", "C"]);
  });

  test("how a part plays is set for the pass; a change of length is refused, and says why", () => {
    const song = thrice();
    const pass = nth(song.form, 1).id;
    const played = edit(song, {
      do: "inPass",
      pass,
      here: true,
      edit: { do: "setPlaying", part: "keys", section: "s1", comp: { rhythm: "beats" } },
    });
    expect(nth(played.form, 1).playing).toEqual({ keys: { comp: { rhythm: "beats" } } });
    expect(played.sections).toEqual(song.sections);
    const longer = applyEdit(song, {
      do: "inPass",
      pass,
      here: true,
      edit: { do: "setLine", section: "s1", line: "| C | F | G | C | C |" },
    });
    expect(longer).toMatchObject({
      ok: false,
      error: { message: expect.stringMatching(/4 bars in all its passes/) as string },
    });
    const all = edit(song, {
      do: "inPass",
      pass,
      edit: { do: "setLine", section: "s1", line: "| C | F | G | C | C |" },
    });
    expect(firstOf(all.sections).bars).toBe(5);
  });

  test("chords of its own are laid out beside the others, and its notes are told from them", () => {
    const song = must(
      applyEdit(thrice(), withFollowing(thrice(), { do: "setLine", section: "s1", line: "| C | F | G7 | C |" })),
    ).song;
    const pass = nth(song.form, 1).id;
    const change: Edit = {
      do: "inPass",
      pass,
      here: true,
      edit: { do: "setLine", section: "s1", line: "| C | F | Dm7 | G7 |" },
    };
    const own = must(applyEdit(song, withFollowing(song, change))).song;
    const [stretch] = sure(nth(own.form, 1).own);
    expect(sure(sure(stretch).chords).map((c) => [c.symbol, sure(sure(c.voicings).keys).pitches.length > 2])).toEqual([
      ["Dm7", true],
      ["G7", true],
    ]);
    expect(own.sections).toEqual(song.sections);
  });
});

describe("for any edit of the music", () => {
  const MUSIC = [
    "setLine",
    "setChord",
    "setChords",
    "addNote",
    "changeNotes",
    "removeNotes",
    "setNotes",
    "setHit",
    "changeHit",
    "setDrums",
    "repeatDrums",
    "moveChords",
    "copyChords",
    "setBorder",
    "arrangeChords",
  ];
  const start = firstOf(demoSongs());
  const section = sure(start.sections.find((s) => start.form.filter((p) => p.sectionId === s.id).length > 1));
  const passes = start.form.filter((p) => p.sectionId === section.id).map((p) => p.id);

  test.each([true, false])(
    "what one hears while editing is what the pass plays; the others keep theirs (here only: %s)",
    (here) => {
      let made = 0;
      for (const [i, name] of MUSIC.entries())
        for (const change of fc.sample(anyEdit(start, name), { seed: 5 + i, numRuns: 24 })) {
          if (!("section" in change) || change.section !== section.id) continue;
          // A pass with a bar of its own, and one a tone higher.
          for (const transpose of [0, 2]) {
            const pass = firstOf(passes);
            const prepared = edit(
              start,
              { do: "setPass", pass, transpose },
              {
                do: "inPass",
                pass,
                here: true,
                edit: { do: "setChords", section: section.id, from: 1920, to: 3840, chords: [] },
              },
            );
            const view = passView(prepared, pass);
            const seen = applyEdit(view, change);
            const done = applyEdit(prepared, { do: "inPass", pass, here, edit: change });
            if (!done.ok || !seen.ok) {
              expect([change, done.ok || done.error, here || done.ok === seen.ok]).toEqual([
                change,
                expect.anything(),
                true,
              ]);
              continue;
            }
            made++;
            const { song } = done.value;
            expect(parseSong(JSON.parse(JSON.stringify(song))).ok).toBe(true);
            // Trimming and muting belong to the pass, in the view as in the song.
            expect(passSound(song, pass)).toBe(passSound(seen.value.song, pass));
            if (here)
              for (const other of passes.slice(1)) expect(passSound(song, other)).toBe(passSound(prepared, other));
            if (here) expect(song.sections).toEqual(prepared.sections);
          }
        }
      expect(made).toBeGreaterThan(60);
    },
  );
});

describe("how a part plays in a pass", () => {
  const attacks = (song: Song, pass: string) =>
    sure(realizePlace(song, { kind: "pass", id: pass }, false).parts.find((p) => p.id === "keys")).notes.map(
      (n) => [n.start, n.midi, n.velocity] as const,
    );
  const voiced = () => {
    const line: Edit = { do: "setLine", section: "s1", line: "| C | F | G7 | C |" };
    return must(applyEdit(thrice(), withFollowing(thrice(), line))).song;
  };
  const set = (song: Song, pass: string, ways: Record<string, object>): Song => {
    const change = { do: "setPlaying", part: "keys", pass, ...ways } as Edit;
    return must(applyEdit(song, withFollowing(song, change))).song;
  };

  test("beats to eighths doubles the attacks there, changes no pitch, and nothing elsewhere", () => {
    const song = edit(voiced(), { do: "setPlaying", part: "keys", comp: { rhythm: "beats" } });
    const [first, second] = song.form.map((p) => p.id) as [string, string];
    const busy = set(song, second, { comp: { rhythm: "driving" } });
    const starts = (s: Song, p: string) => new Set(attacks(s, p).map(([start]) => start)).size;
    expect(starts(busy, second)).toBe(2 * starts(song, second));
    const pitches = (s: Song, p: string) => [...new Set(attacks(s, p).map(([, midi]) => midi))].sort();
    expect(pitches(busy, second)).toEqual(pitches(song, second));
    expect(attacks(busy, first)).toEqual(attacks(song, first));
    expect(busy.sections).toEqual(song.sections);
  });

  test("another kind, another loudness: of this pass alone", () => {
    const song = voiced();
    const [first, second] = song.form.map((p) => p.id) as [string, string];
    const other = set(song, second, { comp: { kind: "arpeggio" }, dynamics: { steps: 1 } });
    expect(new Set(attacks(other, second).map(([start]) => start)).size).toBeGreaterThan(8);
    // A step is from mf to f: 16 of velocity.
    expect(Math.max(...attacks(other, second).map(([, , v]) => v))).toBeGreaterThan(
      Math.max(...attacks(song, second).map(([, , v]) => v)),
    );
    expect(passSound(other, first)).toBe(passSound(song, first));
  });

  test(
    "voicings of a pass's own follow its chords, in its key too, and go when they are given back; the section " +
      "keeps its layouts",
    () => {
      const song = voiced();
      const third = nth(song.form, 2).id;
      const shell = set(edit(song, { do: "setPass", pass: third, transpose: 2 }), third, {
        voicing: { style: "shell" },
      });
      expect(shell.sections).toEqual(song.sections);
      const layouts = sure(sure(nth(shell.form, 2).voicings).keys);
      expect(Object.keys(layouts)).toEqual(firstOf(song.sections).chords.map((c) => c.id));
      expect(passSound(shell, third)).not.toBe(
        passSound(edit(song, { do: "setPass", pass: third, transpose: 2 }), third),
      );
      // As one sees it, it sounds.
      const seen = firstOf(passView(shell, third).sections).chords.map(
        (c) => sure(sure(c.voicings).keys).pitches.length,
      );
      expect(new Set(attacks(shell, third).map(([start]) => start)).size).toBe(4);
      expect(attacks(shell, third)).toHaveLength(seen.reduce((a, b) => a + b, 0));
      // A chord changed in the section is laid out there and here.
      const change: Edit = {
        do: "setChord",
        section: "s1",
        chord: nth(firstOf(song.sections).chords, 1).id,
        symbol: "Dm7",
      };
      const changed = must(applyEdit(shell, withFollowing(shell, change))).song;
      expect(sure(sure(nth(changed.form, 2).voicings).keys)[nth(firstOf(song.sections).chords, 1).id]).not.toEqual(
        layouts[nth(firstOf(song.sections).chords, 1).id],
      );
      // An edit of the section through the pass leaves the section its layouts.
      const through = edit(shell, {
        do: "inPass",
        pass: third,
        edit: { do: "setLine", section: "s1", line: "| D | G | A7 | Bm |" },
      });
      expect(
        firstOf(through.sections)
          .chords.slice(0, 3)
          .map((c) => c.voicings),
      ).toEqual(
        firstOf(song.sections)
          .chords.slice(0, 3)
          .map((c) => c.voicings),
      );
      // A layout chosen while the pass is looked at is the pass's.
      const pinned = edit(shell, {
        do: "inPass",
        pass: third,
        edit: {
          do: "setVoicings",
          section: "s1",
          part: "keys",
          pitches: Object.fromEntries(firstOf(song.sections).chords.map((c) => [c.id, ["D3", "F#4"]])),
        },
      });
      expect(pinned.sections).toEqual(shell.sections);
      expect(Object.values(sure(sure(nth(pinned.form, 2).voicings).keys))[0]).toEqual({ pitches: ["C3", "E4"] });
      const back = must(
        applyEdit(
          shell,
          withFollowing(shell, { do: "setPlaying", part: "keys", pass: third, voicing: { style: null } }),
        ),
      ).song;
      expect(back.form[2]).toEqual({ id: third, sectionId: "s1", transpose: 2 });
    },
  );

  test("moved to another key, layouts and bars of a pass's own go along, and come back", () => {
    const song = voiced();
    const third = nth(song.form, 2).id;
    const own = edit(set(song, third, { voicing: { style: "shell" } }), {
      do: "inPass",
      pass: third,
      here: true,
      edit: { do: "setLine", section: "s1", line: "| C | F | Bb9 | C |" },
    });
    const away = edit(own, { do: "transposeSection", section: "s1", key: "Eb major" });
    expect(firstOf(sure(firstOf(sure(nth(away.form, 2).own)).chords)).symbol).toBe("Db9");
    expect(edit(away, { do: "transposeSection", section: "s1", key: "C major" })).toEqual(own);
    expect(
      edit(edit(own, { do: "transpose", key: "E major", semitones: 4 }), {
        do: "transpose",
        key: "C major",
        semitones: -4,
      }),
    ).toEqual(own);
  });
});

test(
  "how a part plays, set while a pass is looked at: what the pass has for itself is set there, the rest where it " +
    "was meant",
  () => {
    const song = thrice();
    const pass = nth(song.form, 1).id;
    const own = edit(song, { do: "setPlaying", part: "keys", pass, comp: { rhythm: "beats" } });
    const through = (here: boolean) =>
      edit(own, {
        do: "inPass",
        pass,
        here,
        edit: { do: "setPlaying", part: "keys", comp: { rhythm: "driving", lift: 1 } },
      });
    expect(sure(nth(through(false).form, 1).playing).keys).toEqual({ comp: { rhythm: "driving" } });
    expect(sure(through(false).parts.find((p) => p.id === "keys")).playing.comp).toEqual({ lift: 1 });
    expect(sure(nth(through(true).form, 1).playing).keys).toEqual({ comp: { rhythm: "driving", lift: 1 } });
    expect(through(true).parts).toEqual(song.parts);
    // Given back, the pass plays as its section again.
    const back: Edit = {
      do: "inPass",
      pass,
      edit: { do: "setPlaying", part: "keys", section: "s1", comp: { rhythm: null } },
    };
    expect(edit(own, back)).toEqual(song);
  },
);

test("what is of a section as a whole is made in the section, whatever key the pass is heard in", () => {
  const song = thrice();
  const third = nth(song.form, 2).id;
  const higher = edit(song, { do: "setPass", pass: third, transpose: 2 });
  const through = (change: Edit) => edit(higher, { do: "inPass", pass: third, edit: change });
  for (const change of [
    { do: "transposeSection", section: "s1", key: "E major", semitones: 4 },
    { do: "changeMode", section: "s1", key: "A minor" },
    { do: "setSection", section: "s1", name: "Refrain", bars: 3 },
    { do: "setSectionTime", section: "s1", tempo: 80, pickup: 480 },
  ] satisfies Edit[])
    expect(through(change)).toEqual(edit(higher, change));
});

test("in a song of 64 sections an unlike pass is seen, tried and edited as elsewhere", () => {
  let song = thrice();
  while (song.sections.length < 64)
    song = edit(song, { do: "addSection", name: `Section ${song.sections.length}`, bars: 1 });
  const third = nth(song.form, 2).id;
  const higher = edit(song, { do: "setPass", pass: third, transpose: 2 });
  const view = passView(higher, third);
  expect([view.sections.length, firstOf(view.sections).key]).toEqual([64, "D major"]);
  const change: Edit = {
    do: "setChord",
    section: "s1",
    chord: firstOf(firstOf(view.sections).chords).id,
    symbol: "Bm",
  };
  expect(applyEdit(view, change).ok).toBe(true);
  expect(firstOf(firstOf(edit(higher, { do: "inPass", pass: third, edit: change }).sections).chords).symbol).toBe("Am");
});
