import { useEffect, useState, type PointerEvent, type RefObject } from "react";
import { chordAtTick, pitchMidi, type Meter, type RealizedPart, type Ticks } from "../../core/src/index";
import { soundNote } from "../audio/sound";
import { addNote, changeNotes, changeNotesEdit, spellHere, type NoteChange, type NotePlace } from "../commands/notes";
import { tryEdit } from "../store/analysis";
import { usePreferences } from "../store/preferences";
import type { SectionData } from "../store/sectionData";
import { chooseChord, chooseNotes, useSelection } from "../store/selection";
import { sectionNow } from "../store/song";
import type { Axis } from "./axis";
import { floorTick, snapPitch, snapTick } from "./geometry";
import type { LaneScale } from "./laneScale";

/** Pixels the mouse may move before a press is a drag. */
const SLACK = 4;

interface Drag {
  kind: "move" | "resize" | "draw" | "dropped";
  id: string;
  x: number;
  y: number;
  moved: boolean;
  change: NoteChange | null;
}

interface Lane {
  svg: RefObject<SVGSVGElement | null>;
  data: SectionData;
  part: RealizedPart;
  axis: Axis;
  scale: LaneScale;
  editable: boolean;
}

export interface NoteGestures {
  /** What the dragged note would become; null while nothing is dragged. */
  change: NoteChange | null;
  dragging: boolean;
  onPointerDown(e: PointerEvent): void;
  onPointerMove(e: PointerEvent): void;
  onPointerUp(): void;
}

/** Where a note may begin: not before the pickup that is shown, not behind the section. */
export const clampStart = (start: Ticks, grid: Ticks, { axis, data }: { axis: Axis; data: { length: Ticks; meter: Meter } }): Ticks =>
  Math.min(data.length - grid, Math.max(-axis.pickup, start));

/** What the dragged note would become with the mouse at a place. */
function changeAt({ data, part, axis, scale }: Lane, drag: Drag, at: { x: number; y: number }): NoteChange | null {
  const { snap, grid } = usePreferences.getState();
  const note = part.notes.find((n) => n.id === drag.id);
  if (!note) return null;
  const [dx, dy] = [at.x - drag.x, at.y - drag.y];
  if (drag.kind !== "move") {
    const end =
      drag.kind === "draw" ? floorTick(axis.tick(at.x), grid) + grid : snapTick(note.start + note.duration + dx / axis.scale, grid);
    return { id: note.id, duration: Math.max(grid / 2, end - note.start) };
  }
  const start = clampStart(note.start + snapTick(dx / axis.scale, grid), grid, { axis, data });
  if (Math.abs(dy) < SLACK) return { id: note.id, start, pitch: note.pitch };
  const midi = snapPitch(note.midi + scale.semitones(dy), snap, chordAtTick(data.real.chords, Math.max(0, start)), data.key);
  return { id: note.id, start, pitch: spellHere(data.section, start, midi) };
}

const same = (a: NoteChange | null, b: NoteChange): boolean =>
  a !== null && a.start === b.start && a.pitch === b.pitch && a.duration === b.duration;

/** Notes written with the mouse: a press into the empty lane writes one and draws out its length, a drag moves or resizes; one edit when it is let go. */
export function useNoteGestures(lane: Lane): NoteGestures {
  const { svg, data, part, axis, scale, editable } = lane;
  const place: NotePlace = { section: data.section.id, part: part.id };
  const [drag, setDrag] = useState<Drag | null>(null);
  // A changed note stays where it was dropped until the score has followed the edit.
  useEffect(() => setDrag((d) => (d?.kind === "dropped" ? null : d)), [part]);

  const point = (e: PointerEvent) => {
    const box = svg.current!.getBoundingClientRect();
    return { x: e.clientX - box.left, y: e.clientY - box.top };
  };
  const press = (e: PointerEvent, target: SVGElement) => {
    const id = target.getAttribute("data-note")!;
    const { notes } = useSelection.getState();
    const chosen = notes.part === part.id ? notes.ids : [];
    chooseNotes(part.id, e.shiftKey ? [...new Set([...chosen, id])] : [id]);
    const chordId = part.notes.find((n) => n.id === id)?.chordId;
    if (chordId) chooseChord(chordId, useSelection.getState().chords);
    target.focus();
    const resize = (e.target as Element).hasAttribute("data-grip");
    if (editable) setDrag({ kind: resize ? "resize" : "move", id, ...point(e), moved: false, change: null });
  };
  const draw = (e: PointerEvent) => {
    const { snap, grid } = usePreferences.getState();
    const at = point(e);
    const start = floorTick(axis.tick(at.x), grid);
    if (start < -axis.pickup || start >= data.length) return;
    const midi = snapPitch(scale.midiAt(at.y), snap, chordAtTick(data.real.chords, Math.max(0, start)), data.key);
    const id = addNote(place, { start, duration: grid, pitch: spellHere(data.section, start, midi) });
    if (id) setDrag({ kind: "draw", id, ...at, moved: false, change: null });
  };
  return {
    change: drag?.change ?? null,
    dragging: drag !== null,
    onPointerDown(e) {
      if (e.button !== 0) return;
      const target = (e.target as Element).closest<SVGElement>("[data-note]");
      if (target) press(e, target);
      else if (editable) draw(e);
      svg.current!.setPointerCapture(e.pointerId);
    },
    onPointerMove(e) {
      if (!drag || drag.kind === "dropped") return;
      const at = point(e);
      if (!drag.moved && Math.abs(at.x - drag.x) < SLACK && Math.abs(at.y - drag.y) < SLACK) return;
      const change = changeAt(lane, drag, at);
      if (!change || same(drag.change, change)) return;
      setDrag({ ...drag, moved: true, change });
      tryEdit(changeNotesEdit(place, [change]));
    },
    onPointerUp() {
      if (!drag || drag.kind === "dropped") return;
      const note = (sectionNow(place.section)?.notes[part.id] ?? part.notes).find((n) => n.id === drag.id);
      const pitch = drag.change?.pitch ?? note?.pitch;
      const made = drag.change !== null && changeNotes(place, [drag.change], { quiet: drag.kind === "draw" });
      if (pitch && (drag.change || drag.kind !== "draw")) void soundNote(part.id, pitchMidi(pitch));
      setDrag(made ? { ...drag, kind: "dropped" } : null);
    },
  };
}
