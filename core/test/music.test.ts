import fc from "fast-check";
import { applyEdit, belowLimit, BASS_STYLES, checkSong, chordPitchClasses, describeReason, motionBetween, motionKind, must, parallelPerfect, parseChord, pitchMidi, REASON_WORDS, reportBass, RULES, sliceSong, slices, spoken, voiceLeadingDistance, voicePaths, voiceProgression, voicingSpace, writeBass, type Finding, type Song } from "../src/index";
import { demoSongs } from "../../demo/songs";
import { edit, songWith } from "./helpers";

const chord = (symbol: string) => must(parseChord(symbol));

describe("motion against published values", () => {
  // Cohn 1996, Tymoczko 2006; values from memory, computed again by the test itself through brute force below.
  test.each([["C", "Cm", 1], ["C", "Em", 1], ["C", "Am", 2], ["C", "Ab", 2], ["C", "E", 2], ["C", "F", 3], ["C", "G", 3], ["C", "D", 6], ["C", "F#", 6]])("smallest voice leading %s–%s is %i", (a, b, distance) => {
    expect(voiceLeadingDistance(chordPitchClasses(chord(a)), chordPitchClasses(chord(b)))).toBe(distance);
  });
  test("the hexatonic cycle is six steps of 1; Cdim7 lies 1 from four dominants (Cohn 1996, 2012)", () => {
    const cycle = ["C", "Cm", "Ab", "G#m", "E", "Em", "C"].map((s) => chordPitchClasses(chord(s)));
    expect(cycle.slice(1).map((c, i) => voiceLeadingDistance(cycle[i]!, c))).toEqual([1, 1, 1, 1, 1, 1]);
    for (const symbol of ["B7", "D7", "F7", "Ab7"]) expect(voiceLeadingDistance(chordPitchClasses(chord("Cdim7")), chordPitchClasses(chord(symbol)))).toBe(1);
  });
  test("voice leading equals brute force over all matchings", () => {
    const permutations = (list: number[]): number[][] => (list.length < 2 ? [list] : list.flatMap((x, i) => permutations([...list.slice(0, i), ...list.slice(i + 1)]).map((p) => [x, ...p])));
    const ring = (a: number, b: number) => Math.min((a - b + 12) % 12, (b - a + 12) % 12);
    fc.assert(fc.property(fc.uniqueArray(fc.integer({ min: 0, max: 11 }), { minLength: 3, maxLength: 4 }), fc.uniqueArray(fc.integer({ min: 0, max: 11 }), { minLength: 4, maxLength: 4 }), (a, longer) => {
      const b = longer.slice(0, a.length);
      expect(voiceLeadingDistance(a, b)).toBe(Math.min(...permutations(b).map((p) => a.reduce((sum, x, i) => sum + ring(x, p[i]!), 0))));
    }), { seed: 2, numRuns: 200 });
  });
  test("kinds of motion and parallels (any harmony textbook)", () => {
    expect(motionKind(48, 50, 55, 57)).toBe("parallel");
    expect(motionKind(48, 50, 55, 53)).toBe("contrary");
    expect(motionKind(48, 48, 55, 53)).toBe("oblique");
    expect(motionKind(48, 50, 55, 59)).toBe("similar");
    expect(parallelPerfect(48, 50, 55, 57)).toBe("fifth");
    expect(parallelPerfect(48, 50, 72, 74)).toBe("octave");
    expect(parallelPerfect(48, 48, 60, 60)).toBeNull();
    expect(parallelPerfect(48, 53, 55, 48)).toBeNull();
  });
  // Low interval limits of arranging handbooks, values from memory.
  test.each([[3, "C3"], [4, "Bb2"], [7, "Bb1"], [10, "F2"], [16, "Bb1"]])("an interval of %i semitones is clear from %s up", (size, limit) => {
    const low = pitchMidi(limit);
    expect([belowLimit(low, low + size), belowLimit(low - 1, low - 1 + size)]).toEqual([0, 1]);
  });
});

describe("voicings", () => {
  test("rootless ii–V–I moves 1 + 5 semitones (Levine, The Jazz Piano Book, value from memory)", () => {
    const left = [["F3", "A3", "C4", "E4"], ["F3", "A3", "B3", "E4"], ["E3", "G3", "B3", "D4"]].map((v) => v.map(pitchMidi));
    expect([motionBetween(left[0]!, left[1]!), motionBetween(left[1]!, left[2]!)]).toEqual([1, 5]);
  });

  test("the path is the cheapest: equal to brute force on short progressions, open and looping", () => {
    for (const loop of [false, true])
      for (const symbols of [["C", "F", "G7"], ["Dm9", "G13", "Cmaj9"], ["Ebmaj9", "C7(b9)", "Fm7"]]) {
        const space = must(voicingSpace(symbols.map(chord), { loop, voices: 3 }));
        const { lattice } = space;
        let best = Infinity;
        for (let a = 0; a < lattice.sizes[0]!; a++)
          for (let b = 0; b < lattice.sizes[1]!; b++) {
            const head = lattice.node(0, a) + lattice.node(1, b) + lattice.step(0, a, b);
            if (head >= best) continue;
            for (let c = 0; c < lattice.sizes[2]!; c++) best = Math.min(best, head + lattice.node(2, c) + lattice.step(1, b, c) + (loop ? lattice.step(2, c, a) : 0));
          }
        expect(must(voicePaths(symbols.map(chord), { loop, voices: 3 }))[0]!.cost).toBeCloseTo(best, 9);
      }
  });

  test("every voicing names its chord: no foreign tone, guide tones kept, in range, spelled as the chord", () => {
    const symbols = ["Ebmaj9", "Cm7", "F7sus4", "F13(b9)", "Bbm7", "Eb9(#11)", "Abmaj7", "Db6/9", "G7alt", "Caug", "Am7b5", "D5", "E/G#"];
    const [path] = must(voiceProgression({ chords: symbols, loop: true }));
    path!.voicings.forEach((pitches, i) => {
      const c = chord(symbols[i]!);
      const pcs = chordPitchClasses(c);
      const sounding = pitches.map((p) => pitchMidi(p) % 12);
      for (const pc of sounding) expect(pcs).toContain(pc);
      for (const tone of c.tones.filter((t) => t.degree === 3 || t.degree === 7 || t.degree === 4)) expect([symbols[i], sounding]).toEqual([symbols[i], expect.arrayContaining([(pcs[0]! + tone.semitones) % 12])]);
      for (const p of pitches) expect(pitchMidi(p)).toBeGreaterThanOrEqual(47);
    });
    expect(path!.voicings[0]!.join()).not.toMatch(/#/);
  });

  test("a pin stays and the rest follows; without a bass part the written bass lies lowest", () => {
    const pins = { 1: ["A3", "C4", "F4", "A4"] };
    const [path] = must(voiceProgression({ chords: ["C", "F", "G7"], loop: true, pins }));
    expect(path!.voicings[1]).toEqual(pins[1]);
    const [bare] = must(voiceProgression({ chords: ["C/E", "F", "D7/F#"], bassCovered: false }));
    expect(bare!.voicings.map((v) => v[0]!.replace(/\d/, ""))).toEqual(["E", expect.any(String), "F#"]);
    expect(voiceProgression({ chords: ["C", "Zm"] })).toMatchObject({ ok: false, error: { code: "chord.root" } });
  });
});

describe("roles of notes", () => {
  const labels = (song: Song, part: string) => {
    const data = sliceSong(song, { section: "s1" });
    return data.real.parts.find((p) => p.id === part)!.notes.map((n) => data.roles.get(part)!.get(n)!.map((s) => s.label).join(">"));
  };
  test("non-chord tones by how they are approached and left (any harmony textbook)", () => {
    expect(labels(songWith({ line: "| C | G |", melody: ["0 E4 1", "1 F4 0.5", "1.5 G4 1", "2.5 F#4 0.5", "3 G4 1"] }), "melody")).toEqual(["3", "p", "5", "n", "5"]);
    expect(labels(songWith({ line: "| F | C |", melody: ["2 F4 3", "5 E4 1"] }), "melody")).toEqual(["R>s", "3"]);
    expect(labels(songWith({ line: "| G | C |", melody: ["0 B4 3.5", "3.5 C5 0.5", "4 C5 2"] }), "melody")).toEqual(["3", "an", "R"]);
    expect(labels(songWith({ line: "| C | C |", melody: ["0 G4 1", "1 C#5 0.5", "1.5 C5 1"] }), "melody")).toEqual(["5", "app", "R"]);
    expect(labels(songWith({ line: "| C | F |", bass: ["0 C2 3.5", "3.5 E2 0.5", "4 F2 2", "7.5 F#2 0.5"] }), "bass")).toEqual(["R", "3", "R", "×"]);
    expect(labels(songWith({ line: "| C | Dbmaj7 | C |", bass: ["0 C2 9"] }), "bass")[0]).toBe("R>7>R");
    expect(labels(songWith({ line: "| C | D | C |", bass: ["0 C2 9"] }), "bass")[0]).toBe("R>ped>R");
    // The loop: the last note leads into the first.
    expect(labels(songWith({ line: "| C | F |", bass: ["0 C2 1", "7.5 B1 0.5"] }), "bass")).toEqual(["R", "ap"]);
  });
  test("slices carry chord, kick, sounding bass and follow each other without gaps", () => {
    const song = songWith({ line: "| C | F |", kicks: [[0, 80], [2.5, 70], [3.5, 100]], bass: ["0 E2 3", "4 F2 4"] });
    const list = slices(song, { section: "s1" });
    list.slice(1).forEach((s, i) => expect(s.start).toBe(list[i]!.start + list[i]!.duration));
    expect(list[0]).toMatchObject({ sounding: "C/E", kick: { main: true } });
    expect(list.find((s) => s.start === 1200)!.kick!.main).toBe(false);
    expect(list.find((s) => s.start === 1680)!.kick!.main).toBe(true);
    expect(list.find((s) => s.start === 1920)!.sounding).toBe("F");
  });
});

describe("findings", () => {
  const rules = (song: Song) => checkSong(song).map((f) => f.rule);
  const cases: [string, Song, string][] = [
    ["a bass note held outside its chord", songWith({ line: "| C | F |", bass: ["0 C#2 1"] }), "long-outside"],
    ["a chord that changes under a held note", songWith({ line: "| C | B7 |", bass: ["0 C2 8"] }), "long-outside"],
    ["a main kick without bass", songWith({ line: "| C | C |", kicks: [[0, 100], [2, 80]], bass: ["0 C2 1"] }), "uncovered-accent"],
    ["bass above the chords", edit(songWith({ line: "| C |", bass: ["0 G4 2"] }), { do: "setVoicings", section: "s1", part: "keys", pitches: { c1: ["C4", "E4", "G4"] } }), "bass-above-chords"],
    ["parallel octaves of the outer voices", songWith({ line: "| C | D |", bass: ["0 C2 4", "4 D2 4"], melody: ["0 C5 4", "4 D5 4"] }), "parallels"],
    ["a third too low", edit(songWith({ line: "| C |", bass: ["0 C2 4"] }), { do: "pinVoicing", section: "s1", part: "keys", chord: "c1", pitches: ["E2", "G3", "C4"] }), "low-intervals"],
    ["a note no bass guitar has", songWith({ line: "| C |", bass: ["0 C1 1"] }), "out-of-range"],
    ["a long high note", songWith({ line: "| F | F |", melody: ["0 F5 4"] }), "high-voice"],
  ];
  test.each(cases)("%s: found, with place, measure, source, and fixes that cure it", (_, song, rule) => {
    const found = checkSong(song).find((f): f is Finding => f.rule === rule)!;
    expect(found).toMatchObject({ where: { section: "s1" }, measure: expect.stringMatching(/\w/), source: expect.stringMatching(/\w/), message: expect.stringMatching(/\w/) });
    expect(found.fixes.length).toBeGreaterThan(0);
    for (const fix of found.fixes) expect(checkSong(edit(song, fix.edit)).filter((f) => f.id === found.id)).toEqual([]);
  });
  test("pedals, anticipations and resolved suspensions are excepted by name; clean music has no finding", () => {
    expect(rules(songWith({ line: "| C | D | C |", bass: ["0 C2 12"] }))).toEqual([]);
    expect(rules(songWith({ line: "| F | C |", melody: ["2 F4 3", "5 E4 1"] }))).toEqual([]);
    expect(rules(songWith({ line: "| C | F |", kicks: [[0, 100], [4, 100]], bass: ["0 C2 2", "4 F2 2"] }))).toEqual([]);
  });
  test("profiles weigh differently and a waiver keeps its reason", () => {
    const song = cases[4]![1];
    const by = (profile: "chorale" | "band" | "jazz" | "loop") => checkSong(song, { profile }).find((f) => f.rule === "parallels")?.severity;
    expect([by("chorale"), by("band"), by("jazz"), by("loop")]).toEqual(["fault", "note", undefined, undefined]);
    const [finding] = checkSong(song);
    expect(checkSong(edit(song, { do: "waive", finding: finding!.id, reason: "wanted" })).find((f) => f.id === finding!.id)!.waived).toBe("wanted");
  });
  test("every rule and style explains itself", () => {
    for (const item of [...RULES, ...BASS_STYLES]) expect([item.title, item.explanation.length > 40, item.source.length > 5]).toEqual([expect.any(String), true, true]);
  });
});

describe("bass writer", () => {
  const progressions = ["| Ebmaj9 | Cm7 F7sus4 F7 | Bbm7 Eb9 | Abmaj7 |", "| Dm7 | G7 | C | C |", "| Am | F | C | G/B |", "| C7 . . F7 | % | G7 F7 | C7 |", "| Em7b5 A7(b9) | Dm9 | Bb13 | A7 |"];
  const kicks: [number, number][][] = [[0, 4, 8, 12].map((b) => [b, 100]), [0, 1.5, 2.75, 4, 5.5, 8, 9.5, 10.75, 12, 13.5].map((b) => [b, b % 4 === 0 ? 110 : 90]), []];
  const grid = progressions.flatMap((line) => kicks.flatMap((k) => ["4/4", "3/4", "7/8"].flatMap((meter) => BASS_STYLES.map((s) => ({ line, k, meter, style: s.id })))));

  test("on a grid of progressions, kicks, meters and styles every line meets its targets or names the conflict", () => {
    for (const { line, k, meter, style } of grid) {
      if (meter !== "4/4" && line.includes(". .")) continue;
      const place = `${style} ${meter} ${line} ${k.length}`;
      const song = songWith({ key: "C major", meter, line, kicks: k.filter(([b]) => b < (meter === "4/4" ? 16 : meter === "3/4" ? 12 : 14)) });
      const lines = must(writeBass(song, { section: "s1", part: "bass", style, seed: 4 }));
      expect([place, lines.length > 1]).toEqual([place, true]);
      for (const { notes, report, conflicts } of lines) {
        const targets = BASS_STYLES.find((s) => s.id === style)!.targets;
        expect([place, report.accentsMet]).toEqual([place, report.accents]);
        expect([place, report.withoutReason, report.approachesResolved]).toEqual([place, 0, report.approaches]);
        expect([place, report.longestOutside <= targets.longestOutside * 720]).toEqual([place, true]);
        if (report.pitchClasses > targets.pitchClasses) expect([place, conflicts.map((c) => c.code)]).toEqual([place, expect.arrayContaining(["pitchClasses"])]);
        if (!k.length) expect(conflicts[0]!.code).toBe("noKick");
        expect([place, report.lastBarVaried]).toEqual([place, true]);
        for (const n of notes) expect(describeReason(n.reason)).not.toMatch(/undefined|\{/);
      }
    }
  });
  test("the same seed gives the same lines; another seed others", () => {
    const song = demoSongs()[1]!;
    const write = (seed: number) => JSON.stringify(must(writeBass(song, { section: "s1", part: "bass", style: "kick-locked", seed })).map((l) => l.notes));
    expect(write(1)).toBe(write(1));
    expect(write(1)).not.toBe(write(2));
  });
  test("pinned notes stay as they are, and what they prevent is named", () => {
    const base = songWith({ line: "| C | N.C. | F | G |", kicks: [[0, 100], [2, 100], [4, 100], [8, 100], [12, 100]] });
    const song = edit(base, { do: "setNotes", section: "s1", part: "bass", notes: [{ start: 480, duration: 960, pitch: "C#2", velocity: 80, pinned: true }] });
    for (const { notes, conflicts } of must(writeBass(song, { section: "s1", part: "bass", style: "root-fifth-octave", seed: 1 }))) {
      expect(notes.filter((n) => n.pinned)).toEqual(song.sections[0]!.notes.bass);
      expect(notes.some((n) => !n.pinned && n.start < 1440 && n.start + n.duration > 480)).toBe(false);
      expect(notes.some((n) => n.start >= 1920 && n.start < 3840)).toBe(false);
      expect(conflicts.map((c) => c.code)).toEqual(expect.arrayContaining(["noChord", "held", "pin"]));
    }
    expect(writeBass(songWith({}), { section: "s1", part: "bass" })).toMatchObject({ ok: false, error: { code: "bass.chords" } });
    expect(writeBass(song, { section: "s1", part: "bass", style: "polka" })).toMatchObject({ ok: false, error: { code: "bass.style" } });
  });
  test("glides lead into the next note", () => {
    const [line] = must(writeBass(songWith({ line: "| C | F | C | G |", kicks: [[0, 100], [4, 100], [8, 100], [12, 100]] }), { section: "s1", part: "bass", style: "root-anchored", settings: { glides: true } }));
    const gliding = line!.notes.filter((n) => n.glideTo);
    expect(gliding.length).toBeGreaterThan(0);
    for (const n of gliding) expect(line!.notes.find((m) => m.start === n.start + n.duration)!.pitch).toBe(n.glideTo);
  });
  test("the report measures what is there", () => {
    const song = songWith({ line: "| C | C |", kicks: [[0, 100], [2, 100], [4, 100]], bass: ["0 C2 1", "1 D2 0.5", "1.5 E2 0.5", "4 C2 2", "6 F#2 1"] });
    const report = must(reportBass(song, { section: "s1", part: "bass" }));
    expect(report).toMatchObject({ notes: 5, accents: 3, accentsMet: 2, offKick: 3, pitchClasses: 4, approaches: 2, approachesResolved: 1, withoutReason: 1, longestOutside: 480, missed: [960], lastBarVaried: true });
    expect(report.chordTime).toBeCloseTo(3.5 / 5);
    expect(report.silence).toBeCloseTo(3 / 8);
  });
});

describe("the demo is sound music", () => {
  test("no finding above a note, all accents met, every bass note with a reason, every melody note in the chord, a tension or named", () => {
    for (const song of demoSongs()) {
      expect(checkSong(song).filter((f) => f.severity !== "note").map((f) => f.message)).toEqual([]);
      for (const section of song.sections) {
        const data = sliceSong(song, { section: section.id });
        const report = must(reportBass(song, { section: section.id, part: "bass" }));
        expect([report.accentsMet, report.withoutReason]).toEqual([report.accents, 0]);
        for (const spans of data.roles.get("melody")!.values()) for (const span of spans) expect([spoken(section.name), span.kind]).not.toContain("outside");
        for (const slice of data.slices) for (const note of slice.notes) if (note.part === "keys") expect(note.span.kind).toBe("chord");
      }
    }
  });
  test("reasons are words", () => {
    for (const id of Object.keys(REASON_WORDS)) expect(describeReason({ id, params: { pitch: "Eb", chord: "Ebmaj7", role: "b3", target: "C", interval: "semitone" } })).not.toMatch(/[{}]/);
    expect(applyEdit(demoSongs()[0]!, { do: "setTempo", tempo: 80 }).ok).toBe(true);
  });
});
