/**
 * Checks songs outside the application: `npm run check -- path …`, a song file, a MIDI file, or a folder of them.
 * `--school chorale|band|jazz|loop` judges by another school than the song's own, `--json` and `--csv` print data,
 * `--fail fault|warning|note|never` says from which severity on the exit status is 1 (fault, where nothing is said).
 * Exit status 2: something could not be read.
 */
import { readdirSync, readFileSync, statSync } from "node:fs";
import path from "node:path";
import { parseArgs } from "node:util";
import { Check, firstOf, Format, Song, type CheckReport, type Profile, type Result } from "../core/src/index";

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

const read = (file: string): Result<Song> => Format.read(path.basename(file), new Uint8Array(readFileSync(file)));

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
  const level = LEVELS.indexOf(values.fail as (typeof LEVELS)[number]);
  if (
    !positionals.length ||
    level < 0 ||
    (values.school !== undefined && !Song.PROFILES.includes(values.school as Profile))
  ) {
    console.error(
      `Usage: npm run check -- [--school ${Song.PROFILES.join("|")}] [--json | --csv] [--fail ` +
        `${LEVELS.join("|")}] path …`,
    );
    return 2;
  }
  let status = 0;
  const reports: { file: string; report: CheckReport }[] = [];
  for (const target of positionals) {
    let files: string[];
    try {
      files = filesOf(target);
    } catch {
      console.error(`${target}: there is no such file or folder`);
      status = 2;
      continue;
    }
    for (const file of files) {
      const song = read(file);
      if (!song.ok) {
        console.error(`${file}: ${song.error.message}${song.error.hint ? `. ${song.error.hint}` : ""}`);
        status = 2;
        continue;
      }
      const report = Check.report(song.value, values.school === undefined ? {} : { profile: values.school as Profile });
      reports.push({ file, report });
      const grave = LEVELS.slice(0, level + 1).some((s) => s !== "never" && report.counts[s] > 0);
      if (status === 0 && values.fail !== "never" && grave) status = 1;
    }
  }
  if (values.json) console.log(JSON.stringify(reports, null, 2));
  else if (values.csv) process.stdout.write(reports.map(({ report }) => Check.csv(report)).join(""));
  else console.log(reports.map(({ file, report }) => tell(file, report)).join("\n\n"));
  return status;
}

process.exitCode = main();
