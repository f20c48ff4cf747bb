import { memo, useEffect, useMemo, useRef, useState, type KeyboardEvent, type PointerEvent } from "react";
import {
  chordAtTick,
  instrumentOf,
  midiRange,
  noteRoles,
  pitchMidi,
  spellAt,
  voicesOf,
  type Edit,
  type Finding,
  type Midi,
  type RealizedNote,
  type Ticks,
} from "../../core/src/index";
import { useShallow } from "zustand/shallow";
import { soundNote } from "../audio/sound";
import { tryEdit } from "../store/analysis";
import { useSong } from "../store/song";
import { useView } from "../store/view";
import type { Axis, ScoreData } from "./data";
import { partOfReal } from "./data";
import { floorTick, laneRange, lyricLines, setAside, snapPitch, snapTick, stepPitch } from "./geometry";
import { LaneBack, laneFoot } from "./LaneBack";
import { KickLines, OpenAccents } from "./Kicks";
import { HEAD, NoteMark } from "./NoteMark";
import { threadReach, Threads } from "./Threads";

interface Props {
  data: ScoreData;
  part: string;
  axis: Axis;
  height: number;
  tint: string;
  /** Visible part of the axis in pixels. */
  from: number;
  to: number;
  findings: readonly Finding[];
}

type Change = { id: string; start?: Ticks; duration?: Ticks; pitch?: string };
interface Drag {
  kind: "move" | "resize" | "draw" | "dropped";
  id: string;
  x: number;
  y: number;
  moved: boolean;
  change: Change | null;
}

export const PitchLane = memo(function PitchLane({ data, part: partId, axis, height, tint, from, to, findings }: Props) {
  const part = partOfReal(data, partId);
  const { set, snap, grid, selected, preview, names } = useView(
    useShallow((s) => ({ set: s.set, snap: s.snap, grid: s.grid, selected: s.selected, preview: s.preview, names: s.names })),
  );
  const edit = useSong((s) => s.edit);
  const svg = useRef<SVGSVGElement>(null);
  const [drag, setDrag] = useState<Drag | null>(null);
  const editable = !part.linked && !preview;
  const source = data.song.parts.find((p) => p.id === partId);
  const linkKind = source?.link?.kind;
  const voices = source?.link ? voicesOf(source) : partId;
  // Chords that are held from one to the next show the way of their voices.
  const threaded = linkKind === "voicing" && !source?.playing.comp?.follow && (source?.playing.comp?.rhythm ?? "held") === "held";
  const comfortable = midiRange(instrumentOf(part.instrument, data.song).comfortable);
  const midis = part.notes.map((n) => n.midi);
  const span = laneRange(midis, [
    Math.max(comfortable[0], part.role === "bass" ? 28 : 55),
    Math.min(comfortable[1], part.role === "bass" ? 46 : 76),
  ]);
  // The lane keeps its range while a note is dragged.
  const frozen = useRef(span);
  if (!drag) frozen.current = span;
  const [low, high] = frozen.current;
  const foot = laneFoot(part.notes, height);
  const y = (midi: number) => HEAD + 3 + ((high - midi) / (high - low)) * (foot - 2 * HEAD - 6);
  const midiAt = (py: number) => high - ((py - HEAD - 3) / (foot - 2 * HEAD - 6)) * (high - low);

  // While a note is dragged, the lane shows the notes as they would be.
  const shown = useMemo(() => {
    if (!drag?.change) return { notes: part.notes, roles: data.roles.get(partId)! };
    const { change } = drag;
    const notes = part.notes
      .map((n): RealizedNote => (n.id === change.id ? { ...n, ...change, midi: change.pitch ? pitchMidi(change.pitch) : n.midi } : n))
      .sort((a, b) => a.start - b.start);
    const moved = { ...part, notes };
    return { notes, roles: noteRoles(data.real, moved) };
  }, [drag, part, data, partId]);

  const selectedIds = selected.part === partId ? selected.ids : [];
  const current = selectedIds[0] ?? part.notes[0]?.id;
  const visible = shown.notes.filter((n) => axis.x(n.start + n.duration) >= from && axis.x(n.start) <= to);
  const aside = setAside(
    visible.map((n) => ({ start: n.start, y: y(n.midi) })),
    HEAD * 2 - 2,
  );
  const numbers = new Map<string, number>();
  findings.forEach(
    (f, i) =>
      f.waived === undefined && f.where.parts.includes(partId) && f.where.notes.forEach((n) => numbers.has(n) || numbers.set(n, i + 1)),
  );
  const sung = part.notes.filter((n) => n.lyric);
  const rows = lyricLines(sung.map((n) => ({ x: axis.x(n.start), text: n.lyric! })));
  const lines = new Map(sung.map((n, i) => [n.id, rows[i]!]));
  const kickAt = new Set(data.kicks.map((k) => k.start));

  const point = (e: PointerEvent) => {
    const box = svg.current!.getBoundingClientRect();
    return { x: e.clientX - box.left, y: e.clientY - box.top };
  };
  const spell = (tick: Ticks, midi: Midi) => spellAt(data.song, data.section, tick, midi);
  const edits = (change: Change): Edit => ({ do: "changeNotes", section: data.section.id, part: partId, notes: [change] });

  const onDown = (e: PointerEvent) => {
    if (e.button !== 0) return;
    const target = (e.target as Element).closest("[data-note]");
    const at = point(e);
    if (target) {
      const id = target.getAttribute("data-note")!;
      const chordId = part.notes.find((n) => n.id === id)?.chordId;
      set({
        selected: { part: partId, ids: e.shiftKey ? [...new Set([...selectedIds, id])] : [id] },
        ...(chordId ? { chord: chordId } : {}),
      });
      (target as SVGElement).focus();
      if (!editable) return;
      setDrag({ kind: (e.target as Element).hasAttribute("data-grip") ? "resize" : "move", id, ...at, moved: false, change: null });
    } else if (editable) {
      const start = floorTick(axis.tick(at.x), grid);
      if (start < -axis.pickup || start >= data.length) return;
      const midi = snapPitch(midiAt(at.y), snap, chordAtTick(data.real.chords, Math.max(0, start)), data.key);
      if (
        !edit({
          do: "addNote",
          section: data.section.id,
          part: partId,
          note: { start, duration: grid, pitch: spell(start, midi), velocity: 90 },
        })
      )
        return;
      const added = useSong
        .getState()
        .song!.sections.find((s) => s.id === data.section.id)!
        .notes[partId]!.find((n) => n.start === start && pitchMidi(n.pitch) === midi);
      void soundNote(partId, midi);
      if (added) {
        set({ selected: { part: partId, ids: [added.id] } });
        setDrag({ kind: "draw", id: added.id, ...at, moved: false, change: null });
      }
    }
    svg.current!.setPointerCapture(e.pointerId);
  };

  const onMove = (e: PointerEvent) => {
    if (!drag || drag.kind === "dropped") return;
    const at = point(e);
    const dx = at.x - drag.x;
    const dy = at.y - drag.y;
    if (!drag.moved && Math.abs(dx) < 4 && Math.abs(dy) < 4) return;
    const note = part.notes.find((n) => n.id === drag.id);
    if (!note) return;
    let change: Change;
    if (drag.kind === "move") {
      const start = Math.min(data.length - grid, Math.max(-axis.pickup, note.start + snapTick(dx / axis.scale, grid)));
      const midi =
        Math.abs(dy) < 4 && !drag.moved
          ? note.midi
          : snapPitch(
              note.midi - (dy / (foot - 2 * HEAD - 6)) * (high - low),
              snap,
              chordAtTick(data.real.chords, Math.max(0, start)),
              data.key,
            );
      change = { id: note.id, start, pitch: Math.abs(dy) < 4 ? note.pitch : spell(start, Math.min(127, Math.max(0, midi))) };
    } else {
      const end =
        drag.kind === "draw" ? floorTick(axis.tick(at.x), grid) + grid : snapTick(note.start + note.duration + dx / axis.scale, grid);
      change = { id: note.id, duration: Math.max(grid / 2, end - note.start) };
    }
    const same =
      drag.change && drag.change.start === change.start && drag.change.pitch === change.pitch && drag.change.duration === change.duration;
    if (same) return;
    setDrag({ ...drag, moved: true, change });
    tryEdit(edits(change));
  };

  const onUp = () => {
    if (!drag || drag.kind === "dropped") return;
    let made = false;
    if (drag.change) {
      made = edit(edits(drag.change), { quiet: drag.kind === "draw" });
      const pitch = drag.change.pitch ?? part.notes.find((n) => n.id === drag.id)?.pitch;
      if (pitch) void soundNote(partId, pitchMidi(pitch));
    } else {
      const note = part.notes.find((n) => n.id === drag.id);
      if (note && drag.kind !== "draw") void soundNote(partId, note.midi);
    }
    // A changed note stays where it was dropped until the score has followed the edit.
    setDrag(made ? { ...drag, kind: "dropped" } : null);
  };
  useEffect(() => setDrag((d) => (d?.kind === "dropped" ? null : d)), [part]);

  const select = (id: string) => {
    set({ selected: { part: partId, ids: [id] } });
    requestAnimationFrame(() => svg.current?.querySelector<SVGElement>(`[data-note="${id}"]`)?.focus());
  };

  /** Notes as they are stored now: the drawn ones may be a frame behind, and keys come fast. */
  const stored = () => {
    const section = useSong.getState().song?.sections.find((s) => s.id === data.section.id);
    return part.linked ? part.notes : (section?.notes[partId] ?? []).map((n) => ({ ...n, midi: pitchMidi(n.pitch) }));
  };

  const onKey = (e: KeyboardEvent) => {
    const notes = stored();
    const focused = useView.getState().selected.part === partId ? (useView.getState().selected.ids[0] ?? current) : current;
    const index = notes.findIndex((n) => n.id === focused);
    const note = notes[index];
    const sideways = e.key === "ArrowLeft" ? -1 : e.key === "ArrowRight" ? 1 : 0;
    const upward = e.key === "ArrowUp" ? 1 : e.key === "ArrowDown" ? -1 : 0;
    if (sideways && !e.ctrlKey && !e.shiftKey) {
      const next = notes[index + sideways];
      if (next) select(next.id);
    } else if (e.key === "Escape") set({ selected: { part: "", ids: [] } });
    else if (!editable) return;
    else if (e.key.toLowerCase() === "n" && !e.ctrlKey) {
      const start = note ? Math.min(note.start + note.duration, data.length - grid) : 0;
      const midi = note?.midi ?? snapPitch((low + high) / 2, snap, chordAtTick(data.real.chords, 0), data.key);
      if (
        edit({
          do: "addNote",
          section: data.section.id,
          part: partId,
          note: { start, duration: grid, pitch: spell(start, midi), velocity: 90 },
        })
      ) {
        const added = useSong
          .getState()
          .song!.sections.find((s) => s.id === data.section.id)!
          .notes[partId]!.findLast((n) => n.start === start);
        if (added) select(added.id);
      }
    } else if (!note) return;
    else if (upward) {
      const chord = chordAtTick(data.real.chords, Math.max(0, note.start));
      const move = (n: { midi: Midi }) =>
        e.altKey ? n.midi + 12 * upward : e.shiftKey ? n.midi + upward : stepPitch(n.midi, upward as 1 | -1, snap, chord, data.key);
      const moved = notes.filter((n) => (selectedIds.length ? selectedIds : [note.id]).includes(n.id));
      edit({
        do: "changeNotes",
        section: data.section.id,
        part: partId,
        notes: moved.map((n) => ({ id: n.id, pitch: spell(n.start, Math.min(127, Math.max(0, move(n)))) })),
      });
      void soundNote(partId, move(note));
    } else if (sideways && e.ctrlKey)
      edit(edits({ id: note.id, start: Math.min(data.length - grid, Math.max(-axis.pickup, note.start + sideways * grid)) }));
    else if (sideways && e.shiftKey) edit(edits({ id: note.id, duration: Math.max(grid / 2, note.duration + sideways * grid) }));
    else if (e.key === "Delete" || e.key === "Backspace") {
      edit({ do: "removeNotes", section: data.section.id, part: partId, notes: selectedIds.length ? selectedIds : [note.id] });
      const next = notes[index + 1] ?? notes[index - 1];
      if (next) select(next.id);
    } else if (e.key === "Enter") document.querySelector<HTMLInputElement>("#note-pitch")?.focus();
    else return;
    e.preventDefault();
    e.stopPropagation();
  };

  return (
    <svg
      ref={svg}
      className={`lane-svg${editable ? " editable" : ""}`}
      width={axis.width}
      height={height}
      role="group"
      aria-label={`${part.name}, ${part.notes.length} notes`}
      tabIndex={part.notes.length ? -1 : 0}
      onPointerDown={onDown}
      onPointerMove={onMove}
      onPointerUp={onUp}
      onPointerCancel={onUp}
      onKeyDown={onKey}
      onContextMenu={(e) => e.preventDefault()}
    >
      <LaneBack
        colors={part.role !== "bass" && !part.linked}
        data={data}
        axis={axis}
        low={low}
        high={high}
        height={height}
        foot={foot}
        from={from}
        to={to}
      />
      {part.role === "bass" && <KickLines data={data} axis={axis} height={height} from={from} to={to} />}
      {threaded && <Threads data={data} part={voices} axis={axis} y={y} from={from} to={to} />}
      {visible.map((note, i) => (
        <NoteMark
          key={note.id}
          note={note}
          spans={shown.roles.get(note) ?? []}
          x={axis.x(note.start)}
          y={y(note.midi)}
          width={note.duration * axis.scale - (threaded ? threadReach(note.duration * axis.scale) : 0)}
          aside={aside[i]!}
          tint={tint}
          meter={data.meter}
          scale={axis.scale}
          lyricY={height - 5 - (1 - (lines.get(note.id) ?? 0)) * 11}
          selected={selectedIds.includes(note.id)}
          focusable={note.id === current}
          editable={editable}
          names={names}
          onKick={kickAt.has(note.start)}
          {...(numbers.has(note.id) ? { finding: numbers.get(note.id)! } : {})}
        />
      ))}
      {part.role === "bass" && <OpenAccents axis={axis} height={height} findings={findings} />}
    </svg>
  );
});
