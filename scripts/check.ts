/**
 * Checks songs outside the application: `npm run check -- path …`, a song file, a MIDI file, or a folder of them.
 * `--school chorale|band|jazz|loop` judges by another school than the song's own, `--json` and `--csv` print data,
 * `--fail fault|warning|note|never` says from which severity on the exit status is 1 (fault, where nothing is said).
 * Exit status 2: something could not be read.
 */
import { readdirSync, readFileSync, statSync } from "node:fs";
import path from "node:path";
import { parseArgs } from "node:util";
import {
  Check,
  firstOf,
  Format,
  Song,
  type CheckReport,
  type Opened,
  type Profile,
  type Result,
} from "../core/src/index";

const LEVELS = ["fault", "warning", "note", "never"] as const;

/** Files of a path: itself, or all that can be read in a folder. */
function filesOf(target: string): string[] {
  if (!statSync(target).isDirectory()) return [target];
  return readdirSync(target, { withFileTypes: true })
    .flatMap((e) => {
      const file = path.join(target, e.name);
      if (e.isDirectory()) return filesOf(file);
      return Format.of(e.name)?.read ? [file] : [];
    })
    .sort();
}

const read = (file: string): Result<Opened> => Format.read(path.basename(file), new Uint8Array(readFileSync(file)));

const count = (n: number, what: string): string => `${n} ${what}${n === 1 ? "" : "s"}`;

/** The report as one reads it in a terminal. */
function tell(file: string, { title, school, counts, findings }: CheckReport): string {
  const open = findings.filter((f) => f.left === undefined);
  return [
    `${title} (${file}), judged as ${school}: ${count(counts.fault, "fault")}, ` +
      `${count(counts.warning, "warning")}, ` +
      `${count(counts.note, "note")}${counts.left ? `, ${counts.left} left with a reason` : ""}`,
    ...open.map((f) => {
      const first = firstOf(f.places);
      const more = f.places.length - 1;
      return (
        `  ${f.severity.padEnd(7)} ${first.section}, ${first.where}: ` +
        `${first.message}${more ? ` And ${count(more, "more place")}.` : ""}`
      );
    }),
  ].join("\n");
}

function main(): number {
  const { values, positionals } = parseArgs({
    allowPositionals: true,
    options: {
      school: { type: "string" },
      json: { type: "boolean", default: false },
      csv: { type: "boolean", default: false },
      fail: { type: "string", default: "fault" },
    },
  });
  const { school } = values;
  const level = LEVELS.indexOf(values.fail as (typeof LEVELS)[number]);
  if (!positionals.length || level < 0 || (school !== undefined && !isProfile(school))) {
    console.error(
      `Usage: npm run check -- [--school ${Song.PROFILES.join("|")}] [--json | --csv] [--fail ` +
        `${LEVELS.join("|")}] path …`,
    );
    return 2;
  }
  const songs = positionals.flatMap(songsAt);
  const reports = songs.flatMap(({ file, song }) =>
    song ? [{ file, report: Check.report(song, school === undefined ? {} : { profile: school }) }] : [],
  );
  if (values.json) console.log(JSON.stringify(reports, null, 2));
  else if (values.csv) process.stdout.write(Check.csv(...reports.map(({ report }) => report)));
  else console.log(reports.map(({ file, report }) => tell(file, report)).join("\n\n"));
  if (songs.some(({ song }) => !song)) return 2;
  const graver = LEVELS.slice(0, level + 1).filter((s) => s !== "never");
  return values.fail !== "never" && reports.some(({ report }) => graver.some((s) => report.counts[s] > 0)) ? 1 : 0;
}

const isProfile = (name: string): name is Profile => Song.PROFILES.some((p) => p === name);

/** The songs of a file or folder; null for what cannot be read, of which is told. */
function songsAt(target: string): { file: string; song: Song | null }[] {
  let files: string[];
  try {
    files = filesOf(target);
  } catch {
    console.error(`${target}: there is no such file or folder`);
    return [{ file: target, song: null }];
  }
  return files.map((file) => {
    const song = read(file);
    if (song.ok) {
      for (const line of song.value.mended) console.error(`${file}: ${line}`);
      return { file, song: song.value.song };
    }
    console.error(`${file}: ${song.error.message}${song.error.hint ? `. ${song.error.hint}` : ""}`);
    return { file, song: null };
  });
}

process.exitCode = main();
