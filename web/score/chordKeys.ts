import { nth } from "../../core/src/index";
import { flushSync } from "react-dom";
import { chordsNow } from "../app/commands/chords";
import { soundLayout } from "../app/commands/voicings";
import { chooseChord, useSelection } from "../app/store/selection";
import { edit, songNow } from "../app/store/song";
import { runShortcut, sidewaysOf, upwardOf, withAny, type Press, type Shortcut } from "../kit/shortcuts";

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

/** A chord with the row that is chosen with it. */
interface Chosen extends Row {
  events: ReturnType<typeof chordsNow>;
  index: number;
  /** All that is chosen, where this chord is among it; else this chord. */
  ids: string[];
}

/** The keys of a chord. */
export const CHORD_KEYS: readonly Shortcut<Chosen>[] = [
  {
    keys: "← →",
    what: "previous, next chord; Home and End the first and last; Shift chooses a row of them",
    mouse: "click, Shift-click",
    on: withAny(["arrowleft", "arrowright", "home", "end"], "shift+"),
    run({ section, events, index, focus }, press) {
      const step = { Home: -events.length, End: events.length }[press.key] ?? sidewaysOf(press);
      const next = nth(events, Math.min(events.length - 1, Math.max(0, index + step)));
      // Drawn at once, so that the next key finds it.
      flushSync(() => chooseInRow(section, next.id, press.shiftKey));
      focus(next.id);
    },
  },
  {
    keys: "↑ ↓",
    what: "along the scale; Shift by semitones",
    on: withAny(["arrowup", "arrowdown"], "shift+"),
    run({ section, ids }, press) {
      const by = press.shiftKey ? "semitone" : "scale";
      edit({ do: "moveChords", section, chords: ids, by, steps: upwardOf(press) });
    },
  },
  {
    keys: "Enter",
    what: "type the symbol where it stands; Tab goes on to the next",
    mouse: "double-click",
    on: ["enter"],
    run: ({ rename }) => rename(),
  },
  {
    keys: "P",
    what: "pin it",
    mouse: "pin, in the panel",
    on: withAny(["p"], "shift+"),
    run({ section, events, ids }) {
      const pinned = !ids.every((x) => events.find((c) => c.id === x)?.pinned);
      edit({ do: "pinChords", section, chords: ids, pinned });
    },
  },
  {
    keys: "Ctrl A",
    what: "choose all",
    on: ["mod+a"],
    run: ({ events, id }) =>
      chooseChord(
        id,
        events.map((c) => c.id),
      ),
  },
  {
    keys: "Delete",
    what: "delete it",
    on: ["delete", "backspace"],
    run({ section, events, index, ids, focus }) {
      const near = events[index - 1] ?? events[index + ids.length];
      if (!edit({ do: "arrangeChords", section, chords: ids, how: "remove" })) return;
      flushSync(() => chooseChord(near?.id ?? null));
      if (near) focus(near.id);
    },
  },
];

/** Keys of a chord in the row. True when the key meant something here. */
export function chordKey(press: Press, row: Row): boolean {
  const events = chordsNow(row.section);
  const { chords } = useSelection.getState();
  const ids = chords.includes(row.id) ? chords : [row.id];
  return runShortcut(CHORD_KEYS, press, { ...row, events, ids, index: events.findIndex((c) => c.id === row.id) });
}
