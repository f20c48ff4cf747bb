import { sure } from "../../base/list";
import { positionText } from "../../theory/time/meter";
import { sectionMeter, sectionOf } from "../../song/document";
import type { Profile, Song } from "../../song/schema";
import { checkSong } from "./check";
import { FAMILIES, type Severity } from "./rule";
import { RULES } from "./rules";

/** One place of a finding, as it is told outside the application. */
export interface ReportedPlace {
  section: string;
  where: string;
  tick: number;
  parts: string[];
  message: string;
  amount: string;
  /** Labels of the ways out. */
  fixes: string[];
}

export interface ReportedFinding {
  rule: string;
  title: string;
  family: string;
  severity: Severity;
  source: string;
  /** How much a listener notices it. */
  weight: number;
  /** Why it is left, where it is. */
  left?: string;
  places: ReportedPlace[];
}

/** Everything Check finds in a song, as plain data. */
export interface CheckReport {
  title: string;
  school: Profile;
  counts: Record<Severity | "left", number>;
  findings: ReportedFinding[];
}

/** The findings of a whole song, worst first. */
export function checkReport(song: Song, { profile = song.profile }: { profile?: Profile } = {}): CheckReport {
  const found = checkSong(song, { profile });
  const names = new Map(song.parts.map((p) => [p.id, p.name]));
  const counts: CheckReport["counts"] = { fault: 0, warning: 0, note: 0, left: 0 };
  for (const f of found) counts[f.waived === undefined ? f.severity : "left"]++;
  const order: Severity[] = ["fault", "warning", "note"];
  const findings = [...found]
    .sort(
      (a, b) =>
        Number(a.waived !== undefined) - Number(b.waived !== undefined) ||
        order.indexOf(a.severity) - order.indexOf(b.severity) ||
        b.weight - a.weight,
    )
    .map((f): ReportedFinding => {
      const section = sure(sectionOf(song, f.where.section));
      const meter = sectionMeter(song, section);
      return {
        rule: f.rule,
        title: sure(RULES.find((r) => r.id === f.rule)).title,
        family: FAMILIES[f.family],
        severity: f.severity,
        source: f.source,
        weight: Math.round(f.weight * 100) / 100,
        ...(f.waived === undefined ? {} : { left: f.waived }),
        places: f.places.map((p) => ({
          section: section.name,
          where: positionText(meter, p.tick),
          tick: p.tick,
          parts: p.parts.map((id) => names.get(id) ?? id),
          message: p.message,
          amount: p.amount,
          fixes: p.fixes.map((x) => x.label),
        })),
      };
    });
  return { title: song.title, school: profile, counts, findings };
}

const COLUMNS = [
  "song",
  "severity",
  "rule",
  "family",
  "section",
  "where",
  "parts",
  "message",
  "amount",
  "fixes",
  "left",
] as const;

/** A field of a table in CSV (RFC 4180). What a table program would take for a formula begins with an apostrophe. */
function field(text: string): string {
  const plain = /^[=+\-@\t\r]/.test(text) ? `'${text}` : text;
  return /[",\r\n]/.test(plain) ? `"${plain.replaceAll('"', '""')}"` : plain;
}

/** Reports as one table in CSV (RFC 4180), a row for every place. */
export function reportAsCsv(...reports: readonly CheckReport[]): string {
  const rows = reports.flatMap(rowsOf);
  return [COLUMNS, ...rows].map((row) => `${row.map(field).join(",")}\r\n`).join("");
}

const rowsOf = ({ title, findings }: CheckReport): string[][] =>
  findings.flatMap((f) =>
    f.places.map((p) => [
      title,
      f.severity,
      f.title,
      f.family,
      p.section,
      p.where,
      p.parts.join(" / "),
      p.message,
      p.amount,
      p.fixes.join(" / "),
      f.left ?? "",
    ]),
  );
