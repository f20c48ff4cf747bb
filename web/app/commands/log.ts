import { create } from "zustand";
import { type Edit, Song } from "../../../core/src/index";
import { tellForAWhile } from "../store/notice";
import { usePlayback } from "../store/playback";
import { useSelection } from "../store/selection";
import { edit, sectionNow, songNow, storedSong } from "../store/song";

type LogLine = Extract<Edit, { do: "logEntry" }>;
/** What a line of the log says, and where: its time is added. */
export type Said = Omit<LogLine, "do" | "at">;

/** Whether a line of the log is being typed over the transport. */
export const useLogging = create<{ open: boolean }>(() => ({ open: false }));
export const askLog = (): void => useLogging.setState({ open: true });
export const closeLog = (): void => useLogging.setState({ open: false });

/** A line of the log that stands beside a deed, undone with it. */
export const logged = (said: Said): Edit => ({ do: "logEntry", at: new Date().toISOString(), byItself: true, ...said });

/** A deed with its line in the log, as one step. */
export const withLog = (deed: Edit, said: Said): Edit => ({
  do: "all",
  label: said.what,
  edits: [deed, logged(said)],
});

/** A move to another key with its line in the log; any other edit as it is. */
export function keyLogged(change: Edit): Edit {
  const song = storedSong();
  const where = change.do === "transposeSection" ? Song.section(song, change.section) : undefined;
  if (change.do !== "transpose" && change.do !== "transposeSection") return change;
  const [from, what] = [where?.key ?? song.key, where ? where.name : "The song"];
  const place = where ? { section: where.id } : {};
  return withLog(change, { what: `${what} went from ${from} to ${change.key}`, ...place });
}

/** The place one looks at: section and pass, the bars that are looped or where playing begins, the part at hand. */
export function placeAtHand(): Pick<Said, "section" | "pass" | "tick" | "bars" | "parts"> {
  const { section, pass, notes } = useSelection.getState();
  const { loop, from } = usePlayback.getState();
  const here = sectionNow(section);
  if (!here) return {};
  const { bar } = Song.meterOf(songNow(), here);
  return {
    section,
    ...(pass ? { pass } : {}),
    ...(loop?.on ? { tick: loop.from, bars: Math.max(1, Math.round((loop.to - loop.from) / bar)) } : {}),
    ...(!loop?.on && from !== null ? { tick: from } : {}),
    ...(notes.part ? { parts: [notes.part] } : {}),
  };
}

/** Writes a line into the log; what was typed behind a dash is its why. */
export function writeLog(text: string): boolean {
  const [what = "", ...why] = text.split(/\s+[–—-]\s+/);
  if (!what.trim()) return false;
  const made = edit({
    do: "logEntry",
    at: new Date().toISOString(),
    what: what.trim(),
    ...(why.length ? { why: why.join(" – ").trim() } : {}),
    ...placeAtHand(),
  });
  if (made) tellForAWhile("Written into the log.");
  return made;
}
