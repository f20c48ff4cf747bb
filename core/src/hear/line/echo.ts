import { fail, ok, type Result } from "../../base/result";
import {
  EIGHTH,
  EIGHTH_TRIPLET,
  positionText,
  QUARTER,
  SIXTEENTH,
  type Seconds,
  type Ticks,
} from "../../theory/time/meter";
import { ticksToSeconds } from "../../theory/time/swing";
import { decibels } from "../../theory/instrument/loudness";
import { partOf, sectionMeter, sectionOf, sectionTempo } from "../../song/document";
import { echoSettings, type EchoSettings } from "../../song/echo";
import { applyEdit } from "../../song/edits";
import { sectionPlace } from "../../song/place";
import type { Song } from "../../song/schema";
import { rolesAt } from "../slice/facts";
import { factsOf } from "../../facts/memory";

/** Delays an echo usually has, by what they are called. */
export const ECHO_DELAYS: readonly [delay: Ticks, title: string][] = [
  [SIXTEENTH, "a sixteenth"],
  [EIGHTH_TRIPLET, "a triplet eighth"],
  [EIGHTH, "an eighth"],
  [EIGHTH + SIXTEENTH, "a dotted eighth"],
  [QUARTER, "a quarter"],
  [QUARTER + EIGHTH, "a dotted quarter"],
  [2 * QUARTER, "a half"],
  [4 * QUARTER, "a whole note"],
];

/** What an echo plays, against the chords its notes fall into. */
export interface EchoReport {
  settings: EchoSettings;
  /** From a note to its first repeat. */
  seconds: Seconds;
  /** What each repeat loses. */
  decibels: number;
  notes: number;
  /** Notes that begin on a tone of the chord or a color over it, and those that begin outside it. */
  inside: number;
  outside: { id: string; tick: Ticks; words: string }[];
}

/** The report on an echo in a section. Errors: `echo.part`. */
export function echoReport(
  song: Song,
  { section: sectionId, part: partId }: { section: string; part: string },
): Result<EchoReport> {
  const [section, part] = [sectionOf(song, sectionId), partOf(song, partId)];
  if (!section || part?.echoes === undefined)
    return fail("echo.part", `"${partId}" is no part that echoes another one`);
  const meter = sectionMeter(song, section);
  const settings = echoSettings(part, section);
  const roles = factsOf(song).get(rolesAt, sectionPlace(sectionId), partId, "played");
  const heads = [...roles].flatMap(([note, spans]) => (spans[0] ? [{ note, span: spans[0] }] : []));
  const stands = new Set(["chord", "tension", "free"]);
  const outside = heads.filter(({ span }) => !stands.has(span.kind));
  return ok({
    settings,
    seconds: ticksToSeconds(settings.delay, sectionTempo(song, section)),
    decibels: decibels(settings.decay),
    notes: heads.length,
    inside: heads.length - outside.length,
    outside: outside.map(({ note, span }) => ({
      id: note.id,
      tick: note.start,
      words: `${note.pitch} at ${positionText(meter, note.start)} over ${span.chord?.symbol ?? "N.C."}`,
    })),
  });
}

/**
 * Other delays for an echo, with how much of it would stand inside the chords; those that fit best first. Errors: as
 * `echoReport`.
 */
export function echoDelays(
  song: Song,
  place: { section: string; part: string },
): Result<{ delay: Ticks; title: string; inside: number; notes: number }[]> {
  const now = echoReport(song, place);
  if (!now.ok) return now;
  return ok(
    ECHO_DELAYS.flatMap(([delay, title]) => {
      const tried = applyEdit(song, { do: "setPlaying", part: place.part, section: place.section, echo: { delay } });
      const report = tried.ok ? echoReport(tried.value.song, place) : null;
      return report?.ok && report.value.notes
        ? [{ delay, title, inside: report.value.inside, notes: report.value.notes }]
        : [];
    }).sort((a, b) => b.inside / b.notes - a.inside / a.notes || a.delay - b.delay),
  );
}
