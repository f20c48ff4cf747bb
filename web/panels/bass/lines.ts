import { drumPlayer, partByRole, type Part, type Song } from "../../../core/src/index";
import type { ScoreData } from "../../score/data";
import { useSong } from "../../store/song";
import { useView, type Offer } from "../../store/view";
import { workers } from "../../workers/client";

const KICK = drumPlayer("kick");

/** Bass parts whose notes are written, not derived. */
export const bassParts = (song: Song): Part[] => song.parts.filter((p) => p.role === "bass" && !p.link);

/** The bass part that is worked on. */
export const bassPartOf = (song: Song, id: string): Part | undefined =>
  bassParts(song).find((p) => p.id === id) ?? partByRole(song, "bass");

/** Writes lines for the open section with the style and settings of the part; the newest request wins. */
export async function writeLines(section: string, part: string, seed: number): Promise<void> {
  const view = useView.getState();
  const ticket = `${section}:${part}:${seed}:${Date.now()}`;
  view.set({ busy: ticket, writeProblem: null });
  const result = await workers.writer.bass({ section, part, seed });
  if (useView.getState().busy !== ticket) return;
  view.set({
    busy: null,
    ...(result.ok ? { lines: result.value, linesFor: `${section}:${part}` } : { lines: [], writeProblem: result.error }),
  });
}

/** The written lines as offers that can be heard in place and taken. */
export function useLineOffers(data: ScoreData): Offer[] {
  const { lines, linesFor, bassPart } = useView();
  const part = bassPartOf(data.song, bassPart);
  if (!part || linesFor !== `${data.section.id}:${part.id}`) return [];
  return lines.map((line, i) => ({
    id: `line:${i}:${line.seed}:${line.style}`,
    label: `line ${i + 1}`,
    edit: { do: "setNotes", section: data.section.id, part: part.id, notes: line.notes },
    from: 0,
    to: data.length,
  }));
}

/** Hears the bass by itself, with the kick, or in the whole band. */
export function hearWith(part: string, what: "alone" | "kick" | "all"): void {
  useView.getState().set({ solo: what === "alone" ? [part] : what === "kick" ? [part, KICK] : [] });
}

/** What is heard beside the bass now; null where the choice of solo parts is another one. */
export function heardWith(part: string, solo: readonly string[]): "alone" | "kick" | "all" | null {
  if (!solo.length) return "all";
  if (solo.includes(part) && solo.length === 1) return "alone";
  return solo.includes(part) && solo.includes(KICK) && solo.length === 2 ? "kick" : null;
}

/** The stored song, for edits that follow each other faster than the screen. */
export const songNow = (): Song => useSong.getState().song!;
