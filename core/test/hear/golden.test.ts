import { firstOf, sure } from "../../src/base/list";
import { must } from "../../src/base/result";
import { factsOf } from "../../src/facts/memory";
import { accentMap } from "../../src/hear/accents/accentMap";
import { syncopations } from "../../src/hear/accents/syncopation";
import { analyzeSection } from "../../src/hear/harmony/analyze";
import { findKeys, findKeysOfChords } from "../../src/hear/harmony/keys";
import { tuneAt } from "../../src/hear/line/facts";
import { samePlace } from "../../src/hear/line/tune";
import { tuneInShort, tuneReport } from "../../src/hear/line/report";
import { pairReport } from "../../src/hear/line/between";
import { breathsOf } from "../../src/hear/singer/breaths";
import { cautionFor } from "../../src/hear/singer/caution";
import { byPower, fitKey } from "../../src/hear/singer/fit";
import { singerPage } from "../../src/hear/singer/page";
import { sliceSong } from "../../src/hear/slice/slices";
import { chordOf } from "../../src/theory/chord/progression";
import { demoSongs } from "../demos";
import { goldenSong, VERSION1 } from "../fixtures";
import { songWith } from "../helpers";
import { expectKept } from "../kept";

const SONGS = [...demoSongs(), ...VERSION1.slice(0, 4).map(goldenSong)];
const json = (x: unknown): string =>
  JSON.stringify(x, (k, v: unknown) => (k === "read" || k === "song" ? undefined : v));

const LINES: [key: string, line: string][] = [
  ["C major", "| C | Am | Dm7 | G7 | Em7 A7 | Dm7 G7 | Fm6 | C |"],
  ["A minor", "| Am | E7/G# | Gm6 | D7/F# | Fmaj7 | Bm7b5 E7 | A |"],
  ["Eb major", "| Ebmaj7 | Db7 | Abm6 | Bb7sus4 Bb7 | Gm7 C7 | Fm7 E7 | Eb6 |"],
  ["G major", "| G | B7 | C | Cm | G/D | D7 | F | G |"],
  ["D minor", "| Dm | Dm(maj7) | Dm7 | Dm6 | Bbmaj7 | Em7b5 A7 | D |"],
  ["E major", "| E7 | A7 | E7 | B7 A7 | C#m F#7 | B7 | C#m | E |"],
];

test("what chords are in a key: numerals, tones outside, cadences, the way back", () => {
  const found: Record<string, string[]> = {};
  for (const [key, line] of LINES) {
    const song = songWith({ key, line });
    const report = analyzeSection(song, "s1");
    found[`${key} ${line}`] = [
      ...report.chords.map((c) => json(c)),
      ...report.cadences.map((c) => c.text),
      json({ ...report, chords: 0, cadences: 0 }),
    ];
    const chords = firstOf(song.sections).chords.map((c) => ({ chord: sure(chordOf(c.symbol)), duration: c.duration }));
    found[`${key} ${line} keys`] = findKeysOfChords(chords)
      .slice(0, 5)
      .map((k) => json(k));
  }
  found.keys = findKeys(["C4", "D4", "E4", "G4", "A4", "F#4"])
    .slice(0, 6)
    .map((k) => json(k));
  expectKept("harmony", found);
});

test("what every note is, and what sounds against what, in eight songs", () => {
  const found: Record<string, string[]> = {};
  for (const song of SONGS) {
    const { slices, roles } = sliceSong(song, { section: firstOf(song.sections).id });
    found[`${song.title}, slices`] = slices.map(
      (s) =>
        `${s.start} ${s.duration} ${s.bar}.${s.beat} ${s.chord?.symbol ?? "–"} ${s.sounding ?? ""} ` +
        `${s.notes.map((n) => n.note.midi).join(" ")}${s.kick ? ` kick ${s.kick.main}` : ""}`,
    );
    found[`${song.title}, roles`] = [...roles].flatMap(([part, notes]) =>
      [...notes].map(
        ([n, spans]) => `${part} ${n.start} ${n.pitch} ${spans.map((x) => `${x.kind} ${x.role}`).join("; ")}`,
      ),
    );
  }
  expectKept("slices", found);
});

test("tunes, pairs of lines, accents and singers in eight songs", () => {
  const found: Record<string, string[]> = {};
  for (const song of SONGS) {
    const read = factsOf(song);
    const [section] = song.sections;
    const at = (part: string) => read.get(tuneAt, sure(section).id, part);
    const tunes = song.parts.flatMap((p) => {
      const tune = p.role === "drums" || p.link ? null : at(p.id);
      return tune?.notes.length ? [{ part: p, tune }] : [];
    });
    found[`${song.title}, tunes`] = tunes.flatMap(({ part, tune }) => [
      `${part.name}: ${tuneInShort(tune)}`,
      ...tuneReport(tune).map((m) => `${m.title}: ${m.value} ${m.notes.length}`),
      syncopations(
        tune.notes.map((n) => n.start),
        tune.meter,
        tune.length,
      )
        .map((s) => json(s))
        .join(),
    ]);
    const [a, b] = tunes;
    if (a && b) {
      const { chords } = sliceSong(song, { section: sure(section).id }).real;
      const pair = pairReport(a.tune.notes, b.tune.notes, { meter: a.tune.meter, chords });
      found[`${song.title}, pair`] = [
        json({ ...pair, places: pair.places.map((p) => [p.kind, p.tick, p.duration, p.semitones]) }),
        String(samePlace(a.tune, b.tune)),
      ];
    }
    const map = accentMap(song, sure(section).id);
    found[`${song.title}, accents`] = [map.ok ? json(map.value) : map.error.message];
    found[`${song.title}, singers`] = song.singers.flatMap((s) => [
      String(cautionFor(read, s)),
      json(singerPage(song, s.id)),
      ...(s.partId ? [json(must(breathsOf(song, { section: sure(section).id, part: s.partId })))] : []),
    ]);
    const fits = fitKey(song);
    found[`${song.title}, keys`] = [...fits.slice(0, 4), ...byPower(fits).slice(0, 2)].map((k) => json(k));
  }
  expectKept("lines", found);
});
