import { useMemo } from "react";
import type { BassLine, CounterLine, Edit, Problem, Result, Ticks } from "../../core/src/index";
import { clearLines, useResults, type Offer } from "../store/results";
import { workers } from "../workers/client";
import { acceptEdit } from "./audition";

/** A bench that writes lines, and what a line of it is. */
export interface Written {
  bass: BassLine;
  counter: CounterLine;
}
export type Bench = keyof Written;

/** Which bench, section and part written lines are for. */
export const linesId = (bench: Bench, section: string, part: string): string => `${bench}:${section}:${part}`;

/** Writes lines for a section; the newest request wins. */
async function write<B extends Bench>(
  bench: B,
  section: string,
  part: string,
  seed: number,
  ask: Promise<Result<Written[B][]>>,
): Promise<void> {
  const busy = `${linesId(bench, section, part)}:${seed}:${Date.now()}`;
  useResults.setState({ busy, writeProblem: null });
  const result = await ask;
  if (useResults.getState().busy !== busy) return;
  const written = (lines: (BassLine | CounterLine)[], writeProblem: Problem | null) =>
    useResults.setState({ busy: null, lines, linesFor: linesId(bench, section, part), writeProblem });
  if (result.ok) written(result.value, null);
  else written([], result.error);
}

/** Writes bass lines with the style and settings of the part. */
export const writeLines = (section: string, part: string, seed: number): Promise<void> =>
  write("bass", section, part, seed, workers.writer.bass({ section, part, seed }));

/** Writes counter melodies with the style and settings of the part, against another line. */
export const writeCounters = (section: string, part: string, seed: number, against: string | undefined): Promise<void> =>
  write("counter", section, part, seed, workers.writer.counter({ section, part, seed, ...(against === undefined ? {} : { against }) }));

/** The lines that were written for a part; none while others are shown. */
export const useWritten = <B extends Bench>(bench: B, section: string, part: string): readonly Written[B][] => {
  const lines = useResults((s) => s.lines);
  const mine = useResults((s) => s.linesFor === linesId(bench, section, part));
  return mine ? (lines as Written[B][]) : NONE;
};
const NONE: readonly never[] = [];

/** The written lines as offers that can be heard in place and taken. */
export function useLineOffers(bench: Bench, part: string, section: string, length: Ticks): Offer[] {
  const lines = useWritten(bench, section, part);
  return useMemo(
    () =>
      lines.map((line, i): Offer => ({
        id: `line:${i}:${line.seed}:${line.style}:${part}`,
        label: `line ${i + 1}`,
        edit: { do: "setNotes", section, part, notes: line.notes },
        from: 0,
        to: length,
        whole: true,
        taken: clearLines,
      })),
    [lines, section, part, length],
  );
}

/** Takes a written line; the others are done with. */
export function acceptLine(change: Edit): void {
  if (acceptEdit(change)) clearLines();
}
