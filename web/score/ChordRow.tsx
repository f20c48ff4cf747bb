import { useEffect, useRef, useState, type KeyboardEvent, type MouseEvent, type PointerEvent } from "react";
import { flushSync } from "react-dom";
import {
  categoryTitle,
  instrumentOf,
  pitchMidi,
  positionText,
  typeset,
  type ChordEvent,
  type Problem,
  type Ticks,
} from "../../core/src/index";
import { soundNote } from "../audio/sound";
import { chordsNow, putEdit } from "../panels/chords/put";
import { useSong } from "../store/song";
import { chosenPart } from "../panels/voicings/act";
import { FretDiagram } from "../ui/FretDiagram";
import { useView } from "../store/view";
import { ChordName } from "../ui/ChordName";
import type { Axis, ScoreData } from "./data";
import { Ruler } from "./Ruler";

/** Size in pixels at which a symbol fits the width of its chord; raised parts count for less. */
function symbolSize(symbol: string, width: number): number {
  const slash = /\/[A-G][b#]?$/.exec(symbol)?.[0].length ?? 0;
  const ems = 0.75 + 0.4 * (symbol.length - 1 - slash) + 0.55 * slash;
  return Math.max(12, Math.min(21.6, (width - 10) / ems));
}

/** A chord that is not there yet: the bar after the last one. */
const NEW = "new";

interface Editing {
  id: string;
  text: string;
  problem: Problem | null;
}

/**
 * Ruler and chord symbols with what they mean in the key. A click chooses a chord (with Shift a row of them), a double click or Enter renames it in place,
 * Tab goes on to the next one and past the end to a new bar; borders are dragged.
 */
export function ChordRow({ data, axis, from, to }: { data: ScoreData; axis: Axis; from: number; to: number }) {
  const { chord: selected, chords: chosen, harmony, preview, set } = useView();
  const edit = useSong((s) => s.edit);
  const [editing, setEditing] = useState<Editing | null>(null);
  const part = chosenPart(data.song);
  const shapes = useView((s) => (part && instrumentOf(part.instrument, data.song).held.by === "frets" ? s.voicing[part.id] : undefined));
  const events = data.section.chords;
  const current = selected ?? events[0]?.id;
  // The place of a new chord stays in sight, also when the section grows under it.
  const isNew = editing?.id === NEW;
  useEffect(() => {
    const view = document.querySelector<HTMLElement>(".score");
    if (isNew && view) view.scrollLeft = view.scrollWidth;
  }, [isNew, axis.width, events.length]);
  const analyses = new Map(preview ? [] : harmony?.chords.map((c) => [c.id, c]));

  const choose = (id: string, extend = false, sound = true) => {
    const anchor = events.findIndex((c) => c.id === (chosen[0] ?? selected));
    const at = events.findIndex((c) => c.id === id);
    const range = extend && anchor >= 0 ? events.slice(Math.min(anchor, at), Math.max(anchor, at) + 1).map((c) => c.id) : [id];
    // The first of the list is where the row was begun.
    set({ chord: id, chords: extend && anchor > at ? range.reverse() : range });
    const pitches = part && events.find((c) => c.id === id)?.voicings?.[part.id]?.pitches;
    if (sound && part && pitches) for (const p of pitches) void soundNote(part.id, pitchMidi(p));
  };
  /** Takes what was typed; false when it cannot be read. */
  const commit = (): boolean => {
    if (!editing) return true;
    const text = editing.text.trim();
    const symbol = /^n\.?c\.?$/i.test(text) ? "N.C." : text;
    if (editing.id === NEW && !text) {
      setEditing(null);
      return true;
    }
    const same = text === chordsNow(data.section.id).find((c) => c.id === editing.id)?.symbol;
    if (editing.id === NEW) set({ chord: null, chords: [] });
    if (
      same ||
      edit(editing.id === NEW ? putEdit(data, symbol, "after") : { do: "setChord", section: data.section.id, chord: editing.id, symbol })
    ) {
      setEditing(null);
      return true;
    }
    setEditing({ ...editing, problem: useSong.getState().problem });
    useSong.getState().say(null);
    return false;
  };
  /** Scrolls a place of the row into view: what is out of sight is not drawn and cannot take the focus. */
  const reveal = (start: Ticks, duration: Ticks) => {
    const view = document.querySelector<HTMLElement>(".score");
    if (!view) return;
    const [left, right] = [axis.x(start), axis.x(start + duration)];
    if (left < view.scrollLeft) view.scrollLeft = Math.max(0, left - 40);
    else if (right > view.scrollLeft + view.clientWidth - 120) view.scrollLeft = right - view.clientWidth + 160;
  };
  const focus = (id: string) => {
    const event = chordsNow(data.section.id).find((c) => c.id === id);
    if (event) reveal(event.start, event.duration);
    document.querySelector<HTMLElement>(`[data-chord="${id}"]`)?.focus({ preventScroll: true });
  };
  const onInputKey = (e: KeyboardEvent) => {
    e.stopPropagation();
    if (e.key === "Escape") {
      flushSync(() => setEditing(null));
      if (editing && editing.id !== NEW) focus(editing.id);
    } else if (e.key === "Enter") {
      const id = editing!.id;
      const done = flushSync(commit);
      if (done && id !== NEW) focus(id);
    } else if (e.key === "Tab") {
      e.preventDefault();
      if (editing!.id === NEW && !editing!.text.trim()) return setEditing(null);
      const before = chordsNow(data.section.id);
      const at = editing!.id === NEW ? before.length : before.findIndex((c) => c.id === editing!.id);
      if (!commit()) return;
      const next = chordsNow(data.section.id)[at + (e.shiftKey ? -1 : 1)];
      if (next) {
        set({ chord: next.id, chords: [next.id] });
        reveal(next.start, next.duration);
        setEditing({ id: next.id, text: next.symbol, problem: null });
      } else if (!e.shiftKey) {
        setEditing({ id: NEW, text: "", problem: null });
      }
    }
  };
  const onKey = (e: KeyboardEvent, index: number) => {
    const event = events[index]!;
    const ids = chosen.includes(event.id) ? chosen : [event.id];
    const step = { ArrowLeft: -1, ArrowRight: 1, Home: -events.length, End: events.length }[e.key] ?? 0;
    const section = data.section.id;
    if (step) {
      const next = events[Math.min(events.length - 1, Math.max(0, index + step))]!;
      // Drawn at once, so that the next key finds it.
      flushSync(() => choose(next.id, e.shiftKey));
      focus(next.id);
    } else if (e.key === "ArrowUp" || e.key === "ArrowDown")
      edit({ do: "moveChords", section, chords: ids, by: e.shiftKey ? "semitone" : "scale", steps: e.key === "ArrowUp" ? 1 : -1 });
    else if (e.key === "Enter") setEditing({ id: event.id, text: event.symbol, problem: null });
    else if (e.key === "Delete" || e.key === "Backspace") {
      const near = events[index - 1] ?? events[index + ids.length];
      if (edit({ do: "arrangeChords", section, chords: ids, how: "remove" })) {
        flushSync(() => set({ chord: near?.id ?? null, chords: near ? [near.id] : [] }));
        if (near) focus(near.id);
      }
    } else if (e.key.toLowerCase() === "p" && !e.ctrlKey && !e.metaKey)
      edit({ do: "pinChords", section, chords: ids, pinned: !ids.every((id) => events.find((c) => c.id === id)?.pinned) });
    else if (e.key === "a" && (e.ctrlKey || e.metaKey)) set({ chords: events.map((c) => c.id), chord: event.id });
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  const input = (style: object) => (
    <>
      <input
        autoFocus
        style={style}
        aria-label={editing!.id === NEW ? "New chord" : "Chord symbol"}
        aria-invalid={editing!.problem !== null}
        value={editing!.text}
        placeholder={editing!.id === NEW ? "next bar" : undefined}
        onChange={(e) => setEditing({ ...editing!, text: e.target.value, problem: null })}
        onBlur={() => (editing?.problem ? setEditing(null) : commit())}
        onKeyDown={onInputKey}
      />
      {editing!.problem && (
        <p className="chord-problem" role="alert">
          {editing!.problem.message}. {editing!.problem.hint}
        </p>
      )}
    </>
  );
  const end = events.length ? Math.max(...events.map((c) => c.start + c.duration)) : 0;

  return (
    <div className="chord-row" style={{ width: axis.width }}>
      <Ruler data={data} axis={axis} from={from} to={to} />
      <div className="chords" role="group" aria-label="Chords">
        {!preview &&
          harmony?.regions.map((r) => {
            const first = events.find((c) => c.id === r.from);
            const last = events.find((c) => c.id === r.to);
            if (!first || !last) return null;
            return (
              <span
                key={r.from}
                className="key-region"
                style={{ left: axis.x(first.start), width: (last.start + last.duration - first.start) * axis.scale - 3 }}
                title={typeset(r.text)}
              >
                in {typeset(r.key)}
              </span>
            );
          })}
        {events.map((event, i) => {
          // Out of sight it is not drawn, unless the focus is on it or about to be.
          const near = axis.x(event.start + event.duration) >= from && axis.x(event.start) <= to;
          if (!near && event.id !== current && event.id !== editing?.id) return null;
          const width = event.duration * axis.scale;
          const found = analyses.get(event.id);
          const sounding = data.sounding.get(event.id);
          const at = shapes ? shapes.ids.indexOf(event.id) : -1;
          const shape = at >= 0 ? shapes!.chords[at]!.shape : undefined;
          const isChosen = chosen.includes(event.id) || event.id === selected;
          return (
            <div key={event.id} className={`chord${isChosen ? " selected" : ""}`} style={{ left: axis.x(event.start), width }}>
              {editing?.id === event.id ? (
                input({})
              ) : (
                <button
                  type="button"
                  data-chord={event.id}
                  tabIndex={event.id === current ? 0 : -1}
                  aria-pressed={isChosen}
                  title={`${event.symbol}, ${positionText(data.meter, event.start)}${found && found.category !== "none" ? `: ${typeset(found.roman)}, ${categoryTitle(found.category)}. ${found.explanation}` : ""}`}
                  onClick={(e: MouseEvent) => choose(event.id, e.shiftKey)}
                  onDoubleClick={() => setEditing({ id: event.id, text: event.symbol, problem: null })}
                  onKeyDown={(e) => onKey(e, i)}
                >
                  <span className="symbol" style={{ fontSize: symbolSize(event.symbol, width) }}>
                    <ChordName symbol={event.symbol} />
                    {event.readings && (
                      <i className="doubt" aria-label="not sure">
                        ?
                      </i>
                    )}
                  </span>
                  <span className="under">
                    {found && found.category !== "none" && found.symbol === event.symbol && (
                      <b className={found.outside.length ? "roman foreign" : "roman"}>{typeset(found.roman)}</b>
                    )}
                    {event.pinned && (
                      <i className="pin-mark" aria-label="pinned">
                        pin
                      </i>
                    )}
                    {part && event.voicings?.[part.id]?.pinned && <i className="pin-dot" aria-label="voicing pinned" />}
                  </span>
                  {shape && width > 92 && <FretDiagram shape={shape} />}
                  {sounding && sounding !== event.symbol && width > 76 && <span className="sounding">{typeset(sounding)}</span>}
                </button>
              )}
              {i > 0 && <Border event={event} data={data} axis={axis} />}
            </div>
          );
        })}
        {editing?.id === NEW && (
          <div className="chord new" style={{ left: Math.min(axis.x(end), Math.max(0, axis.width - 130)), width: 124 }}>
            {input({})}
          </div>
        )}
        {!events.length && !editing && (
          <p className="empty-row" style={{ left: axis.x(0) }}>
            No chords yet.{" "}
            <button type="button" onClick={() => setEditing({ id: NEW, text: "", problem: null })}>
              Type the first one here
            </button>{" "}
            (Tab goes on to the next bar), or use the ways in on the right.
          </p>
        )}
      </div>
    </div>
  );
}

/** The border before a chord: dragged, it snaps to the grid; one edit when it is let go. */
function Border({ event, data, axis }: { event: ChordEvent; data: ScoreData; axis: Axis }) {
  const edit = useSong((s) => s.edit);
  const grid = useView((s) => s.grid);
  const drag = useRef<{ x: number; start: Ticks } | null>(null);
  const target = (e: PointerEvent) => Math.round((drag.current!.start + (e.clientX - drag.current!.x) / axis.scale) / grid) * grid;
  return (
    <span
      className="chord-border"
      title="Drag the border"
      onPointerDown={(e) => {
        e.preventDefault();
        e.currentTarget.setPointerCapture(e.pointerId);
        drag.current = { x: e.clientX, start: event.start };
      }}
      onPointerMove={(e) => {
        if (drag.current) e.currentTarget.style.transform = `translateX(${(target(e) - drag.current.start) * axis.scale}px)`;
      }}
      onPointerUp={(e) => {
        if (!drag.current) return;
        const start = target(e);
        drag.current = null;
        e.currentTarget.style.transform = "";
        if (start !== event.start) edit({ do: "setBorder", section: data.section.id, chord: event.id, start });
      }}
    />
  );
}
