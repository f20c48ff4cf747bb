import { memo, useMemo, useRef, useState } from "react";
import {
  counted,
  noteRoles,
  pitchMidi,
  voicesOf,
  type Finding,
  type RealizedNote,
  type RealizedPart,
  type RoleSpan,
} from "../../core/src/index";
import type { NoteChange } from "../commands/notes";
import { usePlayback } from "../store/playback";
import { usePreferences } from "../store/preferences";
import { partOfReal, type SectionData } from "../store/sectionData";
import { chooseNotes, useSelection } from "../store/selection";
import { inSight, type Axis, type Window } from "./axis";
import { lyricLines, setAside } from "./geometry";
import { KickLines, OpenAccents } from "./Kicks";
import { LaneBack } from "./LaneBack";
import { keptRange, laneFoot, laneScale, partRange, type LaneScale } from "./laneScale";
import { RADIUS } from "./layout";
import { noteKey } from "./noteKeys";
import { NoteMark } from "./NoteMark";
import { threadReach, Threads } from "./Threads";
import { useNoteGestures } from "./useNoteGestures";

interface Props {
  data: SectionData;
  part: string;
  axis: Axis;
  height: number;
  tint: string;
  window: Window;
  findings: readonly Finding[];
  /** The lane one works in shows the tones of each chord as lines. */
  lined: boolean;
}

/** Numbers of the findings that stand on the notes of a part. */
function numbersOf(findings: readonly Finding[], part: string): Map<string, number> {
  const numbers = new Map<string, number>();
  findings.forEach((f, i) => {
    if (f.waived !== undefined || !f.where.parts.includes(part)) return;
    for (const n of f.where.notes) if (!numbers.has(n)) numbers.set(n, i + 1);
  });
  return numbers;
}

/** Which of the two lines of words each sung note's syllable stands on, by note. */
function wordLines(notes: readonly RealizedNote[], axis: Axis): Map<string, number> {
  const sung = notes.filter((n) => n.lyric);
  const lines = lyricLines(sung.map((n) => ({ x: axis.x(n.start), text: n.lyric! })));
  return new Map(sung.map((n, i) => [n.id, lines[i]!]));
}

/** Range of a lane: as its notes need it, but kept while it is worked in, so that nothing moves under the hand. */
function useLaneScale(data: SectionData, partId: string, height: number): { scale: LaneScale; hold(on: boolean): void } {
  const part = partOfReal(data, partId);
  const [held, hold] = useState(false);
  const range = useRef(partRange(part, data.song));
  const last = useRef({ section: data.section.id, height });
  const elsewhere = last.current.section !== data.section.id;
  range.current = held && !elsewhere ? (keptRange(range.current, part) as [number, number]) : partRange(part, data.song);
  last.current = { section: data.section.id, height };
  const foot = laneFoot(part.notes, height);
  const [low, high] = range.current;
  return { scale: useMemo(() => laneScale([low, high], foot), [low, high, foot]), hold };
}

/** A pitched part: its notes over the tones of each chord, written and moved with mouse and keys. */
export const PitchLane = memo(function PitchLane({ data, part: partId, axis, height, tint, window, findings, lined }: Props) {
  const part = partOfReal(data, partId);
  const source = data.song.parts.find((p) => p.id === partId);
  const preview = usePlayback((s) => s.preview !== null);
  const chosen = useSelection((s) => s.notes);
  const svg = useRef<SVGSVGElement>(null);
  const { scale, hold } = useLaneScale(data, partId, height);
  const editable = !part.linked && !preview;
  const gestures = useNoteGestures({ svg, data, part, axis, scale, editable });
  const { change } = gestures;
  // While a note is dragged, the lane shows the notes as they would be.
  const shown = useMemo(() => {
    if (!change) return { notes: part.notes, roles: data.roles.get(partId)! };
    const notes = part.notes
      .map((n): RealizedNote => (n.id === change.id ? { ...n, ...moved(n, change) } : n))
      .sort((a, b) => a.start - b.start);
    return { notes, roles: noteRoles(data.real, { ...part, notes }) };
  }, [change, part, data, partId]);

  const ids = chosen.part === partId ? chosen.ids : [];
  const current = ids[0] ?? part.notes[0]?.id;
  const select = (id: string) => {
    chooseNotes(partId, [id]);
    requestAnimationFrame(() => svg.current?.querySelector<SVGElement>(`[data-note="${id}"]`)?.focus());
  };
  const comp = source?.playing.comp;
  // Chords that are held from one to the next show the way of their voices.
  const threaded = source?.link?.kind === "voicing" && !comp?.follow && (comp?.rhythm ?? "held") === "held";
  const bass = part.role === "bass";
  return (
    <svg
      ref={svg}
      className={`lane-svg${editable ? " editable" : ""}`}
      width={axis.width}
      height={height}
      role="group"
      aria-label={`${part.name}, ${counted(part.notes.length, "note")}`}
      tabIndex={part.notes.length ? -1 : 0}
      onPointerEnter={() => hold(true)}
      onPointerLeave={() => hold(false)}
      onPointerDown={gestures.onPointerDown}
      onPointerMove={gestures.onPointerMove}
      onPointerUp={gestures.onPointerUp}
      onPointerCancel={gestures.onPointerUp}
      onKeyDown={(e) => {
        if (!noteKey(e, { data, part, axis, scale, editable, select })) return;
        e.preventDefault();
        e.stopPropagation();
      }}
      onContextMenu={(e) => e.preventDefault()}
    >
      <LaneBack
        data={data}
        axis={axis}
        scale={scale}
        height={height}
        window={window}
        lined={lined}
        colors={lined && !bass && !part.linked}
      />
      {bass && <KickLines data={data} axis={axis} height={height} window={window} />}
      {threaded && <Threads data={data} part={voicesOf(source)} axis={axis} y={scale.y} window={window} />}
      <Notes
        data={data}
        part={part}
        notes={shown.notes}
        roles={shown.roles}
        axis={axis}
        scale={scale}
        window={window}
        height={height}
        tint={tint}
        ids={ids}
        current={current}
        editable={editable}
        threaded={threaded}
        findings={findings}
      />
      {bass && <OpenAccents axis={axis} height={height} findings={findings} />}
    </svg>
  );
});

interface NotesProps {
  data: SectionData;
  part: RealizedPart;
  /** The notes as they are shown: while one is dragged, as they would be. */
  notes: readonly RealizedNote[];
  roles: ReadonlyMap<RealizedNote, RoleSpan[]>;
  axis: Axis;
  scale: LaneScale;
  window: Window;
  height: number;
  tint: string;
  /** Chosen notes, and the one the keyboard stands on. */
  ids: readonly string[];
  current: string | undefined;
  editable: boolean;
  threaded: boolean;
  findings: readonly Finding[];
}

/** Height of a line of words, and their room to the foot of the lane. */
const [WORD_LINE, WORD_FOOT] = [13, 5];

function Notes({ data, part, notes, roles, axis, scale, window, height, threaded, findings, ids, current, ...rest }: NotesProps) {
  const names = usePreferences((s) => s.names);
  const visible = notes.filter((n) => inSight(axis, window, n.start, n.start + n.duration));
  const aside = setAside(
    visible.map((n) => ({ start: n.start, y: scale.y(n.midi) })),
    RADIUS * 2 - 2,
  );
  const numbers = numbersOf(findings, part.id);
  const words = wordLines(part.notes, axis);
  const kickAt = new Set(data.kicks.map((k) => k.start));
  const widthOf = (n: RealizedNote) => n.duration * axis.scale - (threaded ? threadReach(n.duration * axis.scale) : 0);
  return visible.map((note, i) => (
    <NoteMark
      key={note.id}
      note={note}
      spans={roles.get(note) ?? []}
      x={axis.x(note.start)}
      y={scale.y(note.midi)}
      width={widthOf(note)}
      aside={aside[i]!}
      tint={rest.tint}
      meter={data.meter}
      scale={axis.scale}
      lyricY={height - WORD_FOOT - (1 - (words.get(note.id) ?? 0)) * WORD_LINE}
      selected={ids.includes(note.id)}
      focusable={note.id === current}
      editable={rest.editable}
      names={names}
      onKick={kickAt.has(note.start)}
      {...(numbers.has(note.id) ? { finding: numbers.get(note.id)! } : {})}
    />
  ));
}

/** A note with what is changed of it. */
const moved = (n: RealizedNote, { start, duration, pitch }: NoteChange): Partial<RealizedNote> => ({
  ...(start !== undefined ? { start } : {}),
  ...(duration !== undefined ? { duration } : {}),
  ...(pitch !== undefined ? { pitch, midi: pitchMidi(pitch) } : { midi: n.midi }),
});
