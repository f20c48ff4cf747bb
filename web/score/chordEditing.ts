import { useCallback, useState, type KeyboardEvent } from "react";
import { flushSync } from "react-dom";
import { Chord, type Problem, sure } from "../../core/src/index";
import { chordsNow, putEdit } from "../app/commands/chords";
import type { RowData } from "./rowData";
import { chooseChord } from "../app/store/selection";
import { edit, say, useSong } from "../app/store/song";

/** A chord that is not there yet: the bar after the last one. */
export const NEW = "new";

/** A symbol that is being typed in the row. */
export interface Typing {
  id: string;
  text: string;
  problem: Problem | null;
}

export interface ChordTyping {
  typing: Typing | null;
  begin(id: string, text: string): void;
  change(text: string): void;
  onKeyDown(e: KeyboardEvent): void;
  onBlur(): void;
}

/**
 * Typing symbols in the row: Enter takes one, Tab goes on to the next and past the end to a new bar, Escape leaves it
 * as it was.
 */
export function useChordTyping(
  data: Pick<RowData, "section" | "meter">,
  focus: (id: string) => void,
  reveal: (id: string) => void,
): ChordTyping {
  const [typing, setTyping] = useState<Typing | null>(null);
  const section = data.section.id;
  /** Takes what was typed; false when it cannot be read. */
  const commit = (): boolean => {
    if (!typing) return true;
    const text = typing.text.trim();
    const symbol = /^n\.?c\.?$/i.test(text) ? Chord.NONE : text;
    const fresh = typing.id === NEW;
    if (fresh) chooseChord(null);
    const same = fresh ? !text : text === chordsNow(section).find((c) => c.id === typing.id)?.symbol;
    if (same || edit(fresh ? putEdit(data, symbol, "after") : { do: "setChord", section, chord: typing.id, symbol })) {
      setTyping(null);
      return true;
    }
    setTyping({ ...typing, problem: useSong.getState().problem });
    say(null);
    return false;
  };
  const onTab = (back: boolean) => {
    if (sure(typing).id === NEW && !sure(typing).text.trim()) return setTyping(null);
    const before = chordsNow(section);
    const at = sure(typing).id === NEW ? before.length : before.findIndex((c) => c.id === sure(typing).id);
    if (!commit()) return;
    const next = chordsNow(section)[at + (back ? -1 : 1)];
    if (next) {
      chooseChord(next.id);
      reveal(next.id);
      setTyping({ id: next.id, text: next.symbol, problem: null });
    } else if (!back) setTyping({ id: NEW, text: "", problem: null });
  };
  const begin = useCallback((id: string, text: string) => setTyping({ id, text, problem: null }), []);
  return {
    typing,
    begin,
    change: (text) => setTyping({ ...sure(typing), text, problem: null }),
    onBlur: () => {
      if (typing?.problem) setTyping(null);
      else commit();
    },
    onKeyDown(e) {
      e.stopPropagation();
      const id = sure(typing).id;
      if (e.key === "Tab") {
        e.preventDefault();
        onTab(e.shiftKey);
        return;
      }
      const done =
        e.key === "Escape" ? (flushSync(() => setTyping(null)), true) : e.key === "Enter" && flushSync(commit);
      if (done && id !== NEW) focus(id);
    },
  };
}
