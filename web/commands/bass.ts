import { useMemo } from "react";
import { counted, drumPlayer, partByRole, type Edit, type Part, type Song, type Ticks } from "../../core/src/index";
import { clearLines, useResults, type Offer } from "../store/results";
import { useSelection } from "../store/selection";
import { sectionNow } from "../store/song";
import { workers } from "../workers/client";
import { acceptEdit } from "./audition";
import { ALONE, WITH_ALL, type Hearing } from "./hearing";

const KICK = drumPlayer("kick");

/** Bass parts whose notes are written, not derived. */
export const bassParts = (song: Song): Part[] => song.parts.filter((p) => p.role === "bass" && !p.link);

/** The bass part that is worked on. */
export const bassPartOf = (song: Song, id: string): Part | undefined =>
  bassParts(song).find((p) => p.id === id) ?? partByRole(song, "bass");

/** The bass part that is worked on, as it is drawn. */
export function useBassPart(song: Song): Part | undefined {
  const id = useSelection((s) => s.bassPart);
  return bassPartOf(song, id);
}

/** Writes lines for the open section with the style and settings of the part; the newest request wins. */
export async function writeLines(section: string, part: string, seed: number): Promise<void> {
  const busy = `${section}:${part}:${seed}:${Date.now()}`;
  useResults.setState({ busy, writeProblem: null });
  const result = await workers.writer.bass({ section, part, seed });
  if (useResults.getState().busy !== busy) return;
  useResults.setState({
    busy: null,
    ...(result.ok ? { lines: result.value, linesFor: linesId(section, part) } : { lines: [], writeProblem: result.error }),
  });
}

/** Which section and part written lines are for. */
export const linesId = (section: string, part: string): string => `${section}:${part}`;

/** The written lines as offers that can be heard in place and taken. */
export function useLineOffers(part: string, section: string, length: Ticks): Offer[] {
  const lines = useResults((s) => s.lines);
  const mine = useResults((s) => s.linesFor === linesId(section, part));
  return useMemo(
    () =>
      mine
        ? lines.map((line, i): Offer => ({
            id: `line:${i}:${line.seed}:${line.style}`,
            label: `line ${i + 1}`,
            edit: { do: "setNotes", section, part, notes: line.notes },
            from: 0,
            to: length,
            whole: true,
            taken: clearLines,
          }))
        : [],
    [lines, mine, section, part, length],
  );
}

/** Takes a written line; the others are done with. */
export function acceptLine(change: Edit): void {
  if (acceptEdit(change)) clearLines();
}

/** Keeps what a part plays in a section, by how many notes it has and when, so that one can come back to it. */
export function keepNotes(section: string, part: string, name?: string): Edit {
  const notes = sectionNow(section)?.notes[part]?.length ?? 0;
  const time = new Date().toLocaleTimeString([], { hour: "2-digit", minute: "2-digit", second: "2-digit" });
  return { do: "keepTake", section, part, name: name ?? `${counted(notes, "note")}, ${time}` };
}

/** Whom the bass is heard with. */
export const BASS_HEARINGS: readonly Hearing[] = [ALONE, { id: "kick", title: "with the kick", beside: () => [KICK] }, WITH_ALL];
