import { useEffect, useMemo, useState } from "react";
import { quantize, spellInKey, typeset, type Edit, type Part, type Ticks } from "../../../core/src/index";
import { sounded, useSound } from "../../audio/sound";
import { onPlayed, startComputerKeys, startMidi, usePlayed } from "../../input/played";
import { startRecording, stopRecording, useRecord } from "../../input/record";
import type { ScoreData } from "../../score/data";
import { useSong } from "../../store/song";
import { useView } from "../../store/view";
import { hearEdit } from "../hear";

const GRIDS: [Ticks, string][] = [
  [240, "eighths"],
  [120, "sixteenths"],
  [160, "eighth triplets"],
  [480, "quarters"],
];

/** A line played in on any keyboard while the band plays, set on the grid, and heard before it is taken. */
export function PlayTab({ data, part }: { data: ScoreData; part: Part }) {
  const { edit } = useSong();
  const { loop, playIn, set } = useView();
  const { on, take } = useRecord();
  const playing = useSound((s) => s.playing);
  const { device, deviceProblem, held } = usePlayed();
  const [countIn, setCountIn] = useState(true);
  const [grid, setGrid] = useState<Ticks>(240);
  const [strength, setStrength] = useState(1);
  const [ends, setEnds] = useState(true);
  const [mode, setMode] = useState<"replace" | "add">("replace");
  useEffect(() => onPlayed((midi) => void sounded(part.id, midi)), [part.id]);
  useEffect(() => {
    void startMidi();
    return () => {
      set({ playIn: false });
      if (useRecord.getState().on) stopRecording();
    };
  }, [set]);
  useEffect(() => (playIn ? startComputerKeys(36) : undefined), [playIn]);
  const range = loop?.on ? { from: loop.from, to: loop.to } : { from: 0, to: data.length };
  const notes = useMemo(
    () => take && quantize(data.song, data.section, take.notes, { grid, strength, ends, single: true }, take.from, take.to),
    [take, data.song, data.section, grid, strength, ends],
  );
  const change = useMemo((): Edit | null => {
    if (!take || !notes) return null;
    const stored = data.section.notes[part.id] ?? [];
    // Replacing clears the stretch that was played over; adding lets the new notes cut what they fall into.
    const kept =
      mode === "replace"
        ? stored.filter((n) => n.pinned || n.start < take.from || n.start >= take.to)
        : stored.filter((n) => !notes.some((m) => m.start === n.start));
    const cut = kept.map((n) => {
      const next = notes.find((m) => m.start > n.start && m.start < n.start + n.duration);
      return next ? { ...n, duration: next.start - n.start } : n;
    });
    return {
      do: "all",
      label: "played in",
      edits: [
        { do: "keepTake", section: data.section.id, part: part.id, name: `${stored.length} notes, before playing in` },
        { do: "setNotes", section: data.section.id, part: part.id, notes: [...cut, ...notes] },
      ],
    };
  }, [take, notes, data.section, part.id, mode]);
  return (
    <>
      <p className="small">
        Press record, then play: the keys on screen at the foot of the page, those of the computer, or a MIDI keyboard.{" "}
        {device ? `Listening to ${device}.` : deviceProblem}
      </p>
      <div className="controls">
        <button
          type="button"
          className="primary"
          aria-pressed={on}
          onClick={(e) => {
            e.currentTarget.blur();
            if (on) stopRecording();
            else void startRecording(part.id, range.from, range.to, { countIn, over: mode === "replace" });
          }}
        >
          {on ? "Stop recording" : playing ? "Record from the beginning" : "Record"}
        </button>
        <button
          type="button"
          aria-pressed={playIn}
          title="A W S E D F … are piano keys from C, Z and X move an octave"
          onClick={(e) => {
            e.currentTarget.blur();
            set({ playIn: !playIn });
          }}
        >
          computer keys play
        </button>
        <label>
          <input type="checkbox" checked={countIn} onChange={(e) => setCountIn(e.target.checked)} /> count-in
        </label>
      </div>
      {playIn && (
        <p className="small">
          <kbd>A</kbd> to <kbd>;</kbd> are white keys from C2, the row above black ones. <kbd>Z</kbd> <kbd>X</kbd> move an octave.
        </p>
      )}
      <p className="played-notes" aria-live="polite">
        {on ? (held.length ? typeset(held.map((m) => spellInKey(m, data.key)).join("  ")) : "Listening …") : null}
      </p>
      <div className="controls">
        <label>
          <span className="muted">set on</span>
          <select value={grid} onChange={(e) => setGrid(Number(e.target.value))}>
            {GRIDS.map(([ticks, label]) => (
              <option key={ticks} value={ticks}>
                {label}
              </option>
            ))}
          </select>
        </label>
        <label>
          <input type="checkbox" checked={ends} onChange={(e) => setEnds(e.target.checked)} /> ends too
        </label>
      </div>
      <label className="range">
        <span>as played</span>
        <input
          type="range"
          min={0}
          max={1}
          step={0.05}
          value={strength}
          aria-label="How strictly on the grid"
          onChange={(e) => setStrength(Number(e.target.value))}
        />
        <span>on the grid</span>
      </label>
      <div className="controls">
        <label>
          <span className="muted">what was there</span>
          <select value={mode} onChange={(e) => setMode(e.target.value as "replace" | "add")}>
            <option value="replace">gives way</option>
            <option value="add">stays, the new notes join it</option>
          </select>
        </label>
      </div>
      {take && notes && change && (
        <div className="played-take">
          <p role="status">
            {notes.length} notes played
            {notes.length < take.notes.length ? ` (${take.notes.length - notes.length} fell together or outside)` : ""}:{" "}
            {typeset(
              notes
                .slice(0, 12)
                .map((n) => n.pitch)
                .join(" "),
            )}
            {notes.length > 12 ? " …" : ""}
          </p>
          <p className="controls">
            <button type="button" onClick={() => hearEdit(change, "what was played", "played", take.from, take.to)}>
              Hear
            </button>
            <button
              type="button"
              className="primary"
              onClick={() => {
                if (edit(change)) useRecord.setState({ take: null });
              }}
            >
              Take
            </button>
            <button type="button" onClick={() => useRecord.setState({ take: null })}>
              Drop it
            </button>
          </p>
        </div>
      )}
    </>
  );
}
