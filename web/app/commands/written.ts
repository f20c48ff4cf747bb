import { useMemo } from "react";
import { proxy } from "comlink";
import {
  fail,
  type BassLine,
  type BassRequest,
  type CounterLine,
  type Edit,
  nth,
  type Result,
  type RoughSpot,
  type Ticks,
  Song,
  Vocal,
  type VocalLines,
  type VocalRequest,
} from "../../../core/src/index";
import { clearLines, useResults, type Offer } from "../store/results";
import { useSelection } from "../store/selection";
import { songNow } from "../store/song";
import type { GoOn } from "../workers/music.worker";
import { workers } from "../workers/sync";
import { acceptEdit } from "./audition";

/** A bench that writes lines, and what a line of it is. */
export interface Written {
  bass: BassLine;
  counter: CounterLine;
  vocal: VocalLines;
}
export type Bench = keyof Written;

/** Which bench, section and part written lines are for. */
export const linesId = (bench: Bench, section: string, part: string): string => `${bench}:${section}:${part}`;

type Asked<B extends Bench> = (goOn: GoOn<Written[B][]>) => Promise<Result<Written[B][]>>;

/** Writes lines for a section, shown as they come; the newest request wins, and `stopWriting` ends it. */
async function write<B extends Bench>(
  bench: B,
  section: string,
  part: string,
  { seed, ask }: { seed: number; ask: Asked<B> },
): Promise<void> {
  const busy = `${linesId(bench, section, part)}:${seed}:${Date.now()}`;
  useResults.setState({ busy, stopping: false, writeProblem: null });
  const isMine = () => useResults.getState().busy === busy;
  const show = (lines: Written[B][]) => useResults.setState({ lines, linesFor: linesId(bench, section, part) });
  const goOn = (lines: Written[B][]): boolean => {
    if (!isMine()) return false;
    if (lines.length) show(lines);
    return !useResults.getState().stopping;
  };
  const result = await ask(proxy(goOn)).catch((error: unknown): Result<never> =>
    fail("lines.failed", (error as Error).message, { hint: "Try again." }),
  );
  if (!isMine()) return;
  show(result.ok ? result.value : []);
  useResults.setState({ busy: null, stopping: false, writeProblem: result.ok ? null : result.error });
}

/** Lets the request for lines end with what it has found. */
export const stopWriting = (): void => useResults.setState({ stopping: true });

/** Writes bass lines with the style and settings of the part. */
export const writeLines = (section: string, part: string, seed: number): Promise<void> =>
  write("bass", section, part, { seed, ask: (goOn) => workers.writer.bass({ section, part, seed }, goOn) });

/** Writes counter melodies with the style and settings of the part, against another line. */
export const writeCounters = (
  section: string,
  part: string,
  seed: number,
  against: string | undefined,
): Promise<void> => {
  const request = { section, part, seed, ...(against === undefined ? {} : { against }) };
  return write("counter", section, part, { seed, ask: (goOn) => workers.writer.counter(request, goOn) });
};

/** Writes voices beside a tune with the school and settings of the part. */
export const writeVoices = (request: VocalRequest): Promise<void> =>
  write("vocal", request.section, request.part, { seed: 0, ask: (goOn) => workers.writer.vocal(request, goOn) });

/** Mends a rough spot of written voices: the note has another pitch, and they are judged once more. */
export async function mendVoices(request: VocalRequest, index: number, spot: RoughSpot, pitch: string): Promise<void> {
  const lines = useResults.getState().lines as VocalLines[];
  const next = Vocal.mend(nth(lines, index), spot, pitch);
  const judged = await workers.writer.rejudge(request, next);
  const put = judged.ok ? judged.value : next;
  if (useResults.getState().lines === lines)
    useResults.setState({ lines: lines.map((l, i) => (i === index ? put : l)) });
}

/** Written voices as offers: into the parts they are for, and into new ones. */
export function useVoiceOffers(section: string, part: string, length: Ticks): Offer[] {
  const lines = useWritten("vocal", section, part);
  return useMemo(
    () =>
      lines.map((line, i): Offer => ({
        id: `voices:${line.found}:${line.school}:${part}`,
        label: `way ${i + 1}`,
        said: `way ${i + 1} of the voices, ${line.school}`,
        edit: Vocal.take(songNow(), section, line),
        from: 0,
        to: length,
        whole: true,
        taken: clearLines,
      })),
    [lines, section, part, length],
  );
}

/** The lines that were written for a part; none while others are shown. */
export const useWritten = <B extends Bench>(bench: B, section: string, part: string): readonly Written[B][] => {
  const lines = useResults((s) => s.lines);
  const mine = useResults((s) => s.linesFor === linesId(bench, section, part));
  return mine ? (lines as Written[B][]) : NONE;
};
const NONE: readonly never[] = [];

/** The last bars that passes get which go on elsewhere; none where the line is for one pass alone. */
async function endingsOf(request: BassRequest, notes: BassLine["notes"]): Promise<Edit[]> {
  if (useSelection.getState().here) return [];
  const found = await workers.writer.endings(request, notes);
  return found.ok ? found.value : [];
}

/** The written lines as offers that can be heard in place and taken. */
export function useLineOffers(bench: Exclude<Bench, "vocal">, part: string, section: string, length: Ticks): Offer[] {
  const lines = useWritten(bench, section, part);
  return useMemo(
    () =>
      lines.map((line, i): Offer => ({
        id: `line:${line.found}:${line.seed}:${line.style}:${part}`,
        label: `line ${i + 1}`,
        said: `line ${i + 1}, ${line.style}, for ${Song.part(songNow(), part)?.name ?? "the part"}`,
        edit: { do: "setNotes", section, part, notes: line.notes },
        ...(bench === "bass"
          ? { also: () => endingsOf({ section, part, style: (line as BassLine).style, seed: line.seed }, line.notes) }
          : {}),
        from: 0,
        to: length,
        whole: true,
        taken: clearLines,
      })),
    [lines, bench, section, part, length],
  );
}

/** Takes a written line; the others are done with. */
export function acceptLine(change: Edit): void {
  if (acceptEdit(change)) clearLines();
}
