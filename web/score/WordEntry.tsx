import FormControl from "react-bootstrap/FormControl";
import { useLayoutEffect, useRef, useState, type KeyboardEvent } from "react";
import { Words } from "../../core/src/index";
import { changeNotes, type NotePlace } from "../app/commands/notes";
import { usePreferences } from "../app/store/preferences";
import { sectionNow } from "../app/store/song";
import type { Axis } from "./axis";

interface Props {
  place: NotePlace;
  /** The note whose syllable is typed. */
  note: string;
  axis: Axis;
  height: number;
  /** Goes on to another note. */
  go(note: string): void;
  /** Typing is done; the focus goes back to this note. */
  end(note: string): void;
}

/**
 * Words typed under the notes: space or hyphen goes on to the next note, an underline holds the syllable, Enter ends.
 */
export function WordEntry({ place, note: id, axis, height, go, end }: Props) {
  const verse = usePreferences((s) => s.verse);
  const notes = Words.sung(sectionNow(place.section)?.notes[place.part] ?? []);
  const at = notes.findIndex((n) => n.id === id);
  const note = notes[at];
  const stored = note?.lyrics?.[verse] ?? "";
  // Another note shows its own syllable at once, however fast one types; what is typed into this one stays.
  const [typed, setTyped] = useState<{ id: string; text: string } | null>(null);
  const text = typed?.id === id ? typed.text : stored.replace(/-$/, "");
  const setText = (next: string) => setTyped({ id, text: next });
  const input = useRef<HTMLInputElement>(null);
  useLayoutEffect(() => {
    input.current?.focus();
    input.current?.select();
  }, [id]);
  if (!note) return null;
  const put = (index: number, word: string) => {
    const target = notes[index];
    if (target && (target.lyrics?.[verse] ?? "") !== word) changeNotes(place, [Words.layOne(target, word, verse)]);
  };
  const on = (step: number) => {
    const next = notes[at + step];
    if (next) go(next.id);
    else end(id);
  };
  const key = (e: KeyboardEvent<HTMLInputElement>) => {
    e.stopPropagation();
    const word = text.trim();
    const whole = stored.endsWith("-") && word === stored.slice(0, -1) ? stored : word;
    if (e.key === " ") {
      put(at, whole);
      on(1);
    } else if (e.key === "-" && word && word !== Words.HELD) {
      put(at, `${word}-`);
      on(1);
    } else if (e.key === Words.HELD) {
      // Behind a syllable the next note holds it; in an empty place this one does.
      if (word) {
        put(at, whole);
        put(at + 1, Words.HELD);
        on(1);
      } else setText(Words.HELD);
    } else if (e.key === "Enter" || e.key === "Escape") {
      if (e.key === "Enter") put(at, whole);
      end(id);
    } else if (e.key === "Backspace" && !text) on(at > 0 ? -1 : 0);
    else return;
    e.preventDefault();
  };
  return (
    <foreignObject x={axis.x(note.start) - 2} y={height - 26} width={120} height={24}>
      <FormControl
        bsPrefix="field"
        ref={input}
        className="word-entry"
        aria-label={`Words under note ${at + 1} of ${notes.length}, verse ${verse + 1}`}
        value={text}
        maxLength={60}
        onChange={(e) => setText(e.target.value)}
        onKeyDown={key}
        onPointerDown={(e) => e.stopPropagation()}
        onBlur={() => {
          if (text.trim() !== stored.replace(/-$/, "")) put(at, text.trim());
        }}
      />
    </foreignObject>
  );
}
