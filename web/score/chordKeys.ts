import { nth } from "../../core/src/index";
import type { KeyboardEvent } from "react";
import { flushSync } from "react-dom";
import { chordsNow } from "../app/commands/chords";
import { soundLayout } from "../app/commands/voicings";
import { chooseChord, useSelection } from "../app/store/selection";
import { edit, songNow } from "../app/store/song";

/** Chooses a chord, or with `extend` a row of them from where it was begun, and lets it sound. */
export function chooseInRow(section: string, id: string, extend = false): void {
  const events = chordsNow(section);
  const { chord, chords } = useSelection.getState();
  const anchor = events.findIndex((c) => c.id === (chords[0] ?? chord));
  const at = events.findIndex((c) => c.id === id);
  const row = extend && anchor >= 0;
  const range = row ? events.slice(Math.min(anchor, at), Math.max(anchor, at) + 1).map((c) => c.id) : [id];
  // The first of the list is where the row was begun.
  chooseChord(id, row && anchor > at ? range.reverse() : range);
  soundLayout(songNow(), events[at]);
}

interface Row {
  section: string;
  id: string;
  /** Moves the focus to a chord. */
  focus(id: string): void;
  /** Edits the symbol where it stands. */
  rename(): void;
}

/** Keys of a chord in the row. True when the key meant something here. */
export function chordKey(e: KeyboardEvent, { section, id, focus, rename }: Row): boolean {
  const events = chordsNow(section);
  const index = events.findIndex((c) => c.id === id);
  const { chords } = useSelection.getState();
  const ids = chords.includes(id) ? chords : [id];
  const step = { ArrowLeft: -1, ArrowRight: 1, Home: -events.length, End: events.length }[e.key];
  const upward = { ArrowUp: 1, ArrowDown: -1 }[e.key];
  const command = e.ctrlKey || e.metaKey;
  if (step) {
    const next = nth(events, Math.min(events.length - 1, Math.max(0, index + step)));
    // Drawn at once, so that the next key finds it.
    flushSync(() => chooseInRow(section, next.id, e.shiftKey));
    focus(next.id);
  } else if (upward)
    edit({ do: "moveChords", section, chords: ids, by: e.shiftKey ? "semitone" : "scale", steps: upward });
  else if (e.key === "Enter") rename();
  else if (e.key === "Delete" || e.key === "Backspace") {
    const near = events[index - 1] ?? events[index + ids.length];
    if (!edit({ do: "arrangeChords", section, chords: ids, how: "remove" })) return true;
    flushSync(() => chooseChord(near?.id ?? null));
    if (near) focus(near.id);
  } else if (e.key.toLowerCase() === "p" && !command) {
    const pinned = !ids.every((x) => events.find((c) => c.id === x)?.pinned);
    edit({ do: "pinChords", section, chords: ids, pinned });
  } else if (e.key === "a" && command)
    chooseChord(
      id,
      events.map((c) => c.id),
    );
  else return false;
  return true;
}
