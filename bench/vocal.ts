/**
 * Vocal harmony over the whole grid, as a multiple of one check of the same song, and how it grows; key fitting for
 * three singers.
 */
import { firstOf, nth, sure } from "../core/src/base/list";
import { Check, Edit, Frets, must, Singer, type Song, Vocal } from "../core/src/index";
import { longSong } from "./songs";
import { judgeVocal, VOCAL_GRID } from "../core/test/write/vocalGrid";

const median = (list: readonly number[]): number => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)] ?? 0;

/** The long song with a tune of quarters that breathes, and a voice beside it. */
function withVoice(bars: number): Song {
  const song = longSong(bars);
  const edit = (s: Song, e: Parameters<typeof Edit.apply>[1]) => must(Edit.apply(s, e)).song;
  const sung = sure(firstOf(song.sections).notes.melody)
    .filter((n) => n.start % 480 === 0 && Math.floor(n.start / 480) % 8 < 7)
    .map((n) => ({
      ...n,
      duration: 480,
    }));
  return edit(edit(song, { do: "setNotes", section: "s1", part: "melody", notes: sung }), {
    do: "addPart",
    name: "Second",
    role: "vocal",
    instrument: "alto",
  });
}

export function vocal(time: (run: () => unknown, times?: number) => number, { grid }: { grid: boolean }): void {
  const songs = [16, 32, 64].map(withVoice);
  const check = time(() => Check.song(firstOf(songs)));
  const rows = Vocal.SCHOOLS.map((school) => ({
    id: school.id,
    times: songs.map((song) =>
      time(
        () =>
          Vocal.write(song, {
            section: "s1",
            part: sure(song.parts.find((p) => p.name === "Second")).id,
            lead: "melody",
            school: school.id,
            voices: 4,
          }),
        3,
      ),
    ),
  }));
  for (const r of rows)
    console.log(
      `vocal harmony, ${r.id}, 16 bars: ${(firstOf(r.times) / check).toFixed(1)} × one check; doubled ` +
        `${(nth(r.times, 1) / firstOf(r.times)).toFixed(1)} ×, again ` +
        `${(nth(r.times, 2) / nth(r.times, 1)).toFixed(1)} ×`,
    );
  const [three] = songs.map(withSingers);
  const fit = time(() => Singer.fit({ ...sure(three), title: `${Math.random()}` }), 3);
  const necks = time(() => Array.from({ length: 12 }, (_, k) => Frets.keyOf(sure(three), k, "guitar")), 3);
  console.log(
    `key fitting for three singers, 16 bars: ${(fit / check).toFixed(1)} × one check; guitar shapes for all ` +
      `keys, known chords: ${(necks / check).toFixed(1)} ×`,
  );
  if (grid) overGrid();
}

/** Three singers, of whom two sing what the third does. */
function withSingers(song: Song): Song {
  const edit = (s: Song, e: Parameters<typeof Edit.apply>[1]) => must(Edit.apply(s, e)).song;
  const tune = sure(firstOf(song.sections).notes.melody);
  let out = edit(song, { do: "addSinger", name: "One", voice: "mezzo", part: "melody" });
  for (const voice of ["alto", "tenor"]) {
    out = edit(out, {
      do: "addPart",
      name: voice,
      role: "vocal",
      instrument: voice,
      notes: { s1: tune.map(({ id: _, ...n }) => n) },
    });
    out = edit(out, { do: "addSinger", name: voice, voice, part: sure(out.parts.find((p) => p.name === voice)).id });
  }
  return out;
}

function overGrid(): void {
  let [met, named, silent] = [0, 0, 0];
  const values = new Map<string, number[]>();
  for (const c of VOCAL_GRID) {
    const { unmet, unexplained, lines } = judgeVocal(c);
    if (!unmet.length) met++;
    else if (unexplained.length) silent++;
    else named++;
    if (unmet.length && process.env.SHORT)
      console.log(
        c.school,
        c.voices,
        c.tune,
        c.meter,
        c.line,
        unmet.map((m) => `${m.id} ${m.value}`).join(", "),
        firstOf(lines)
          .conflicts.map((x) => x.message)
          .join(" | "),
      );
    const put = (name: string, value: number | null) =>
      value !== null && values.set(name, [...(values.get(name) ?? []), value]);
    const { report } = firstOf(lines);
    if (!["fixed", "octave", "drone"].includes(c.school)) {
      put("time on chord tones, least", report.chordTime);
      put("rubs on a beat, most", report.rubs);
      put("hard leaps, most", report.leaps);
      put("out of the key, most", report.outOfKey);
    }
    if (c.school === "chorale") {
      put("parallels in four parts, most", report.parallels);
      put("unresolved tones in four parts, most", report.tendencies);
      put("spacing in four parts, most", report.spacing);
    }
    put("out of range, most", report.outOfRange);
  }
  console.log(
    `vocal grid of ${VOCAL_GRID.length} combinations: ${met} meet every aim, ${named} name the conflict, ` +
      `${silent} do neither`,
  );
  for (const [name, list] of values)
    console.log(
      `  ${name.split(",")[0]}: median ${median(list).toFixed(2)}, worst ` +
        `${(/least$/.test(name) ? Math.min(...list) : Math.max(...list)).toFixed(2)}`,
    );
}
