import { useEffect, useState, type PointerEvent, type RefObject } from "react";
import {
  Key,
  type Meter,
  type Midi,
  nth,
  Pitch,
  type RealizedNote,
  type RealizedPart,
  Song,
  sure,
  type Ticks,
} from "../../core/src/index";
import { soundNote } from "../app/audio/sound";
import { addCopies } from "../app/commands/clipboard";
import {
  addNote,
  changeNotes,
  changeNotesEdit,
  isVoices,
  notesNow,
  sayFixed,
  spellHere,
  type NoteChange,
  type NotePlace,
} from "../app/commands/notes";
import { tryEdit } from "../app/store/analysis";
import { usePreferences } from "../app/store/preferences";
import { chooseChord, chooseNotes, useSelection } from "../app/store/selection";
import { useSong } from "../app/store/song";
import type { Axis } from "./axis";
import { floorTick, snapPitch, snapTick } from "./geometry";
import type { LaneData } from "./laneData";
import type { LaneScale } from "./laneScale";

/** Pixels the mouse may move before a press is a drag. */
const SLACK = 4;

interface Point {
  x: number;
  y: number;
}

interface Drag extends Point {
  kind: "move" | "copy" | "resize" | "draw" | "box" | "dropped" | "fixed";
  /** The note under the mouse; none in a box. */
  id: string;
  moved: boolean;
  /** What the dragged notes would become, the one under the mouse first. */
  changes: NoteChange[];
  /** The other corner of a box, and what was chosen before it. */
  to: Point;
  kept: readonly string[];
}

interface Lane {
  svg: RefObject<SVGSVGElement | null>;
  data: LaneData;
  part: RealizedPart;
  axis: Axis;
  scale: LaneScale;
  editable: boolean;
}

export interface NoteGestures {
  /** What the dragged notes would become; empty while none is dragged. */
  changes: readonly NoteChange[];
  /** The dragged notes stay, and copies go. */
  copies: boolean;
  /** The note under the mouse while it is dragged. */
  dragged: string | null;
  /** Corners of the box that is drawn around notes. */
  box: { from: Point; to: Point } | null;
  /** What the lane does with the mouse. */
  on: {
    onPointerDown(e: PointerEvent): void;
    onPointerMove(e: PointerEvent): void;
    onPointerUp(): void;
    onPointerCancel(): void;
  };
}

/** Where a note may begin: not before the pickup that is shown, not behind the section. */
export const clampStart = (
  start: Ticks,
  grid: Ticks,
  { axis, data }: { axis: Axis; data: { length: Ticks; meter: Meter } },
): Ticks => Math.min(data.length - grid, Math.max(-axis.pickup, start));

/** A pitch moved as another one was: by as many steps of the scale where notes snap, by semitones where they do not. */
function movedLike(midi: Midi, from: Midi, to: Midi, { data }: Pick<Lane, "data">): Midi {
  if (usePreferences.getState().snap === "semitone" || from === to || Math.abs(to - from) % 12 === 0)
    return midi + to - from;
  const way = to > from ? 1 : -1;
  let [at, moved] = [from, midi];
  while ((way > 0 ? at < to : at > to) && Math.abs(moved - midi) < 60) {
    at = Key.step(at, way, data.key);
    moved = Key.step(moved, way, data.key);
  }
  return moved;
}

/** What the dragged notes would become with the mouse at a place: all chosen ones go along. */
function changesAt(lane: Lane, drag: Drag, at: Point, ids: readonly string[]): NoteChange[] {
  const { data, part, axis, scale } = lane;
  const { snap, grid } = usePreferences.getState();
  const note = part.notes.find((n) => n.id === drag.id);
  if (!note) return [];
  const [dx, dy] = [at.x - drag.x, at.y - drag.y];
  if (drag.kind === "resize" || drag.kind === "draw") {
    const end =
      drag.kind === "draw"
        ? floorTick(axis.tick(at.x), grid) + grid
        : snapTick(note.start + note.duration + dx / axis.scale, grid);
    return [{ id: note.id, duration: Math.max(grid / 2, end - note.start) }];
  }
  const others = part.notes.filter((n) => n.id !== note.id && ids.includes(n.id));
  // All go as far as the one that can go least: they stay as far apart.
  // A voice is struck when its chord is; in one stroke it may come later.
  const still = data.source.link !== undefined && usePreferences.getState().voicesOf === "chord";
  const wanted = still ? 0 : snapTick(dx / axis.scale, grid);
  const ways = [note, ...others].map((n) => clampStart(n.start + wanted, grid, lane) - n.start);
  const by = wanted > 0 ? Math.min(...ways) : Math.max(...ways);
  const level = Math.abs(dy) < SLACK;
  const midi = level
    ? note.midi
    : snapPitch(
        note.midi + scale.semitones(dy),
        snap,
        Song.chordAt(data.real.chords, Math.max(0, note.start + by)),
        data.key,
      );
  const changeOf = (n: RealizedNote, to: Midi): NoteChange => ({
    id: n.id,
    ...(still ? {} : { start: n.start + by }),
    pitch: to === n.midi ? n.pitch : spellHere(data.section, n.start + by, to),
  });
  return [
    changeOf(note, midi),
    ...others.map((n) => changeOf(n, level ? n.midi : movedLike(n.midi, note.midi, midi, lane))),
  ];
}

const same = (a: readonly NoteChange[], b: readonly NoteChange[]): boolean =>
  a.length === b.length &&
  a.every((x, i) => x.start === nth(b, i).start && x.pitch === nth(b, i).pitch && x.duration === nth(b, i).duration);

/** Notes whose heads lie in a box. */
function within({ part, axis, scale }: Lane, from: Point, to: Point): string[] {
  const [left, right] = [Math.min(from.x, to.x), Math.max(from.x, to.x)];
  const [top, bottom] = [Math.min(from.y, to.y), Math.max(from.y, to.y)];
  return part.notes
    .filter((n) => {
      const [x, y] = [axis.x(n.start), scale.y(n.midi)];
      return x + n.duration * axis.scale >= left && x <= right && y >= top && y <= bottom;
    })
    .map((n) => n.id);
}

const start = (kind: Drag["kind"], id: string, at: Point, kept: readonly string[] = []): Drag => ({
  kind,
  id,
  ...at,
  moved: false,
  changes: [],
  to: at,
  kept,
});

/** What a press on a note begins. */
function kindOf(e: PointerEvent, editable: boolean): Drag["kind"] {
  if (!editable) return "fixed";
  if ((e.target as Element).hasAttribute("data-grip")) return "resize";
  return e.altKey ? "copy" : "move";
}

/** Makes the edit of a drag that is let go; whether there was one. */
function dropped({ part }: Lane, place: NotePlace, d: Drag): boolean {
  const note = notesNow(place).find((n) => n.id === d.id) ?? part.notes.find((n) => n.id === d.id);
  const pitch = d.changes[0]?.pitch ?? note?.pitch;
  const made =
    d.changes.length > 0 &&
    (d.kind === "copy" ? addCopies(place, d.changes) : changeNotes(place, d.changes, { quiet: d.kind === "draw" }));
  if (pitch && (d.changes.length || d.kind !== "draw")) void soundNote(part.id, Pitch.midi(pitch));
  return made;
}

/**
 * A changed note stays where it was dropped until the score has followed the edit, or the edit is undone before it did.
 */
function useFollowed(isDropped: boolean, part: RealizedPart, setDrag: (drag: null) => void): void {
  useEffect(() => {
    if (isDropped) setDrag(null);
    // Only another part tells that the score has followed.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [part]);
  useEffect(() => {
    const { song } = useSong.getState();
    return isDropped ? useSong.subscribe((s) => s.song !== song && setDrag(null)) : undefined;
  }, [isDropped, setDrag]);
}

/**
 * Notes written with the mouse: a press into the empty lane writes one and draws out its length, with Shift it draws a
 * box around notes; a drag moves all chosen notes or resizes one, with Alt it leaves them and moves copies. One edit
 * when it is let go.
 */
export function useNoteGestures(lane: Lane): NoteGestures {
  const { svg, data, part, axis, scale, editable } = lane;
  const place: NotePlace = { section: data.section.id, part: part.id };
  const [drag, setDrag] = useState<Drag | null>(null);
  useFollowed(drag?.kind === "dropped", part, setDrag);

  const point = (e: PointerEvent): Point => {
    const box = sure(svg.current).getBoundingClientRect();
    return { x: e.clientX - box.left, y: e.clientY - box.top };
  };
  const chosen = (): readonly string[] => {
    const { notes } = useSelection.getState();
    return notes.part === part.id ? notes.ids : [];
  };
  const press = (e: PointerEvent, target: SVGElement) => {
    const id = sure(target.getAttribute("data-note"));
    const ids = chosen();
    if (e.shiftKey) chooseNotes(part.id, [id, ...ids.filter((x) => x !== id)]);
    else if (!ids.includes(id)) chooseNotes(part.id, [id]);
    const chordId = part.notes.find((n) => n.id === id)?.chordId;
    if (chordId) chooseChord(chordId, useSelection.getState().chords);
    target.focus();
    if (editable || data.source.echoes !== undefined)
      setDrag(start(kindOf(e, editable), id, point(e), e.shiftKey ? [id] : []));
  };
  const draw = (at: Point) => {
    const { snap, grid } = usePreferences.getState();
    const from = floorTick(axis.tick(at.x), grid);
    if (from < -axis.pickup || from >= data.length) return;
    const midi = snapPitch(scale.midiAt(at.y), snap, Song.chordAt(data.real.chords, Math.max(0, from)), data.key);
    const id = addNote(place, { start: from, duration: grid, pitch: spellHere(data.section, from, midi) });
    // A voice of a chord is as long as the chord is struck.
    if (id && !isVoices(data.source)) setDrag(start("draw", id, at));
  };
  const onPointerDown = (e: PointerEvent): void => {
    if (e.button !== 0) return;
    // Only notes are chosen here, never the words of the page.
    document.getSelection()?.removeAllRanges();
    const target = (e.target as Element).closest<SVGElement>("[data-note]");
    if (target) press(e, target);
    else if (e.shiftKey) setDrag(start("box", "", point(e), chosen()));
    else if (editable) draw(point(e));
    sure(svg.current).setPointerCapture(e.pointerId);
  };
  const onPointerMove = (e: PointerEvent): void => {
    if (!drag || drag.kind === "dropped") return;
    const at = point(e);
    if (!drag.moved && Math.abs(at.x - drag.x) < SLACK && Math.abs(at.y - drag.y) < SLACK) return;
    if (drag.kind === "fixed") {
      sayFixed(part.id);
      return setDrag(null);
    }
    if (drag.kind === "box") {
      chooseNotes(part.id, [...new Set([...drag.kept, ...within(lane, drag, at)])]);
      setDrag({ ...drag, moved: true, to: at });
      return;
    }
    const changes = changesAt(lane, drag, at, chosen());
    if (!changes.length || same(drag.changes, changes)) return;
    setDrag({ ...drag, moved: true, changes });
    const tried = drag.kind === "copy" ? null : changeNotesEdit(place, changes);
    if (tried) tryEdit(tried);
  };
  const onPointerUp = (): void => {
    if (!drag || drag.kind === "dropped") return;
    if (drag.kind === "box") {
      svg.current?.querySelector<SVGElement>(`[data-note="${chosen()[0] ?? ""}"]`)?.focus();
      setDrag(null);
      return;
    }
    // A press on one of several chosen notes that does not move it chooses it alone.
    if (!drag.moved && drag.kind === "move" && !drag.kept.length && chosen().length > 1)
      chooseNotes(part.id, [drag.id]);
    setDrag(dropped(lane, place, drag) ? { ...drag, kind: "dropped" } : null);
  };
  return {
    changes: drag && drag.kind !== "box" ? drag.changes : [],
    copies: drag?.kind === "copy",
    dragged: drag?.moved && drag.kind !== "dropped" ? drag.id || null : null,
    box: drag?.kind === "box" && drag.moved ? { from: { x: drag.x, y: drag.y }, to: drag.to } : null,
    on: { onPointerDown, onPointerMove, onPointerUp, onPointerCancel: onPointerUp },
  };
}
