import { useState, type KeyboardEvent } from "react";
import { pitchMidi, positionText, type Problem } from "../../core/src/index";
import { touch } from "../audio/sound";
import { useSong } from "../store/song";
import { useView } from "../store/view";
import { ChordName } from "../ui/ChordName";
import type { Axis, ScoreData } from "./data";

/** Size in pixels at which a symbol fits the width of its chord; raised parts count for less. */
function symbolSize(symbol: string, width: number): number {
  const slash = /\/[A-G][b#]?$/.exec(symbol)?.[0].length ?? 0;
  const ems = 0.75 + 0.4 * (symbol.length - 1 - slash) + 0.55 * slash;
  return Math.max(12, Math.min(21.6, (width - 10) / ems));
}

/** Ruler and chord symbols. A chord is chosen by a click and renamed in place by a double click or Enter. */
export function ChordRow({ data, axis, from, to }: { data: ScoreData; axis: Axis; from: number; to: number }) {
  const { chord: selected, loop, set } = useView();
  const edit = useSong((s) => s.edit);
  const [editing, setEditing] = useState<{ id: string; text: string; problem: Problem | null } | null>(null);
  const [ruling, setRuling] = useState<number | null>(null);
  const part = data.song.parts.find((p) => p.link);
  const events = data.section.chords;
  const current = selected ?? events[0]?.id;
  const bars = Array.from({ length: data.section.bars }, (_, b) => b).filter(
    (b) => axis.x((b + 1) * data.meter.bar) >= from && axis.x(b * data.meter.bar) <= to,
  );

  const choose = (id: string, sound = true) => {
    set({ chord: id });
    const pitches = part && events.find((c) => c.id === id)?.voicings?.[part.id]?.pitches;
    if (sound && part && pitches) for (const p of pitches) void touch(part.id, pitchMidi(p));
  };
  const commit = () => {
    if (!editing) return;
    const text = editing.text.trim();
    if (
      text === events.find((c) => c.id === editing.id)?.symbol ||
      edit({ do: "setChord", section: data.section.id, chord: editing.id, symbol: /^n\.?c\.?$/i.test(text) ? "N.C." : text })
    )
      setEditing(null);
    else {
      setEditing({ ...editing, problem: useSong.getState().problem });
      useSong.getState().say(null);
    }
  };
  const onKey = (e: KeyboardEvent, index: number) => {
    const step = e.key === "ArrowLeft" ? -1 : e.key === "ArrowRight" ? 1 : 0;
    if (step) {
      const next = events[index + step];
      if (!next) return;
      choose(next.id);
      document.querySelector<HTMLElement>(`[data-chord="${next.id}"]`)?.focus();
    } else if (e.key === "Enter") setEditing({ id: events[index]!.id, text: events[index]!.symbol, problem: null });
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  const ruleTo = (bar: number, first: number) => {
    const a = Math.min(bar, first);
    const b = Math.max(bar, first) + 1;
    set({ loop: { on: true, from: a * data.meter.bar, to: b * data.meter.bar } });
  };

  return (
    <div className="chord-row" style={{ width: axis.width }}>
      <div className="ruler" onPointerUp={() => setRuling(null)} onPointerLeave={() => setRuling(null)}>
        {loop && (
          <div
            className={`loop-range${loop.on ? "" : " off"}`}
            style={{ left: axis.x(loop.from), width: (loop.to - loop.from) * axis.scale }}
          />
        )}
        {bars.map((b) => (
          <div
            key={b}
            className="bar-number"
            style={{ left: axis.x(b * data.meter.bar), width: data.meter.bar * axis.scale }}
            title="Drag over bars to loop them, double click to loop the whole section"
            onPointerDown={() => {
              setRuling(b);
              ruleTo(b, b);
            }}
            onPointerEnter={() => ruling !== null && ruleTo(b, ruling)}
            onDoubleClick={() => set({ loop: null })}
          >
            {b + 1}
            {axis.scale * 480 > 40 &&
              data.meter.beats.slice(1).map((beat, i) => (
                <span key={beat.start} style={{ left: beat.start * axis.scale }}>
                  {i + 2}
                </span>
              ))}
          </div>
        ))}
      </div>
      <div className="chords" role="group" aria-label="Chords">
        {events.map(
          (event, i) =>
            axis.x(event.start + event.duration) >= from &&
            axis.x(event.start) <= to && (
              <div
                key={event.id}
                className={`chord${event.id === selected ? " selected" : ""}`}
                style={{ left: axis.x(event.start), width: event.duration * axis.scale }}
              >
                {editing?.id === event.id ? (
                  <>
                    <input
                      autoFocus
                      aria-label="Chord symbol"
                      aria-invalid={editing.problem !== null}
                      value={editing.text}
                      onChange={(e) => setEditing({ ...editing, text: e.target.value, problem: null })}
                      onBlur={() => (editing.problem ? setEditing(null) : commit())}
                      onKeyDown={(e) => {
                        e.stopPropagation();
                        if (e.key === "Enter") commit();
                        else if (e.key === "Escape") setEditing(null);
                      }}
                    />
                    {editing.problem && (
                      <p className="chord-problem" role="alert">
                        {editing.problem.message}. {editing.problem.hint}
                      </p>
                    )}
                  </>
                ) : (
                  <button
                    type="button"
                    data-chord={event.id}
                    tabIndex={event.id === current ? 0 : -1}
                    aria-pressed={event.id === selected}
                    title={`${event.symbol}, ${positionText(data.meter, event.start)}. Double click or Enter to rename it`}
                    onClick={() => choose(event.id)}
                    onDoubleClick={() => setEditing({ id: event.id, text: event.symbol, problem: null })}
                    onKeyDown={(e) => onKey(e, i)}
                  >
                    <span style={{ fontSize: symbolSize(event.symbol, event.duration * axis.scale) }}>
                      <ChordName symbol={event.symbol} />
                    </span>
                    {part && event.voicings?.[part.id]?.pinned && <i className="pin-dot" aria-label="voicing pinned" />}
                  </button>
                )}
              </div>
            ),
        )}
        {!events.length && (
          <p className="empty-row" style={{ left: axis.x(0) }}>
            No chords yet: type a chord line in the Chords panel.
          </p>
        )}
      </div>
    </div>
  );
}
