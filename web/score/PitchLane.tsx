import { memo, useMemo, useRef, useState, type KeyboardEvent } from "react";
import {
  nth,
  type Part,
  Pitch,
  type RealizedNote,
  type RealizedPart,
  type RoleSpan,
  Slice,
  sure,
  Text,
} from "../../core/src/index";
import type { NoteChange } from "../app/commands/notes";
import { usePlayback } from "../app/store/playback";
import { usePreferences } from "../app/store/preferences";
import { chooseNotes, useSelection } from "../app/store/selection";
import { inSight, type Axis, type Window } from "./axis";
import { numbersOf, type Numbered } from "./findings";
import { VoiceWays } from "./VoiceWays";
import { lyricLines, setAside } from "./geometry";
import { KickLines, OpenAccents } from "./Kicks";
import { LaneBack } from "./LaneBack";
import type { LaneData } from "./laneData";
import { keptRange, laneFoot, laneScale, partRange, type LaneScale } from "./laneScale";
import { RADIUS } from "./layout";
import { noteKey } from "./noteKeys";
import { NoteMark } from "./NoteMark";
import { threadReach, Threads } from "./Threads";
import { useNoteGestures, type NoteGestures } from "./useNoteGestures";
import { WordEntry } from "./WordEntry";
import { Box, LiveNotes } from "./LiveNotes";

interface Props {
  data: LaneData;
  axis: Axis;
  height: number;
  tint: string;
  window: Window;
  /** The findings about this part. */
  found: readonly Numbered[];
  /** The lane one works in shows the tones of each chord as lines. */
  lined: boolean;
}

/** Which of the two lines of words each sung note's syllable stands on, by note. */
function wordLines(notes: readonly RealizedNote[], axis: Axis, verse: number): Map<string, number> {
  const sung = notes.filter((n) => n.lyrics?.[verse]);
  const lines = lyricLines(sung.map((n) => ({ x: axis.x(n.start), text: nth(sure(n.lyrics), verse) })));
  return new Map(sung.map((n, i) => [n.id, nth(lines, i)]));
}

/** Range of a lane: as its notes need it, but kept while it is worked in, so that nothing moves under the hand. */
function useLaneScale(data: LaneData, height: number): { scale: LaneScale; hold(on: boolean): void } {
  const { part } = data;
  const [held, hold] = useState(false);
  const range = useRef(partRange(part, data));
  const last = useRef({ section: data.section.id, height });
  const elsewhere = last.current.section !== data.section.id;
  range.current = held && !elsewhere ? (keptRange(range.current, part) as [number, number]) : partRange(part, data);
  last.current = { section: data.section.id, height };
  const foot = laneFoot(part.notes, height);
  const [low, high] = range.current;
  return { scale: useMemo(() => laneScale([low, high], foot), [low, high, foot]), hold };
}

/** The notes as they are shown: while some are dragged, as they would be. */
function useShown(data: LaneData, { changes, copies }: NoteGestures): Pick<NotesProps, "notes" | "roles"> {
  const { part, roles, real } = data;
  return useMemo(() => {
    if (!changes.length) return { notes: part.notes, roles };
    const by = new Map(changes.map((c) => [c.id, c]));
    const went = part.notes.flatMap((n): RealizedNote[] => {
      const change = by.get(n.id);
      if (!change) return [n];
      const gone = { ...n, ...moved(n, change) };
      return copies ? [n, { ...gone, id: `${n.id}-copy` }] : [gone];
    });
    const notes = went.sort((a, b) => a.start - b.start);
    return { notes, roles: Slice.roles(real, { ...part, notes }) };
  }, [changes, copies, part, roles, real]);
}

/** Chords that are held from one to the next show the way of their voices. */
const holdsChords = ({ link, playing: { comp = {} } }: Part): boolean =>
  link?.kind === "voicing" && !comp.follow && (comp.rhythm ?? "held") === "held";

const NONE: readonly string[] = [];

/** A pitched part: its notes over the tones of each chord, written and moved with mouse and keys. */
export const PitchLane = memo(function PitchLane({ data, axis, height, tint, window, found, lined }: Props) {
  const { part, source } = data;
  const preview = usePlayback((s) => s.preview !== null);
  const ids = useSelection((s) => (s.notes.part === part.id ? s.notes.ids : NONE));
  const svg = useRef<SVGSVGElement>(null);
  const { scale, hold } = useLaneScale(data, height);
  const editable = source.echoes === undefined && !preview;
  const gestures = useNoteGestures({ svg, data, part, axis, scale, editable });
  const shown = useShown(data, gestures);
  const [typing, setTyping] = useState<string | null>(null);

  const current = ids[0] ?? part.notes[0]?.id;
  const select = (id: string, all = [id]) => {
    chooseNotes(part.id, all);
    requestAnimationFrame(() => svg.current?.querySelector<SVGElement>(`[data-note="${id}"]`)?.focus());
  };
  const threaded = holdsChords(source);
  const bass = part.role === "bass";
  const lane = { data, axis, scale, height };
  const onKeyDown = (e: KeyboardEvent) => {
    if (!noteKey(e, { data, part, axis, scale, editable, select, typeWords: setTyping })) return;
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
      aria-label={`${part.name}, ${Text.counted(part.notes.length, "note")}`}
      tabIndex={part.notes.length ? -1 : 0}
      onPointerEnter={() => hold(true)}
      onPointerLeave={() => hold(false)}
      {...gestures.on}
      onKeyDown={onKeyDown}
      onContextMenu={(e) => e.preventDefault()}
    >
      <LaneBack
        data={data.back}
        axis={axis}
        scale={scale}
        height={height}
        window={window}
        lined={lined}
        colors={lined && !bass && !part.linked}
      />
      {bass && <KickLines data={data} axis={axis} height={height} window={window} />}
      {threaded && (
        <Threads source={source} events={data.events} profile={data.profile} axis={axis} y={scale.y} window={window} />
      )}
      <VoiceWays notes={shown.notes} found={found} axis={axis} y={scale.y} window={window} />
      <Upbeat notes={data.upbeat} axis={axis} scale={scale} />
      <Notes
        {...lane}
        {...shown}
        part={part}
        window={window}
        tint={tint}
        ids={ids}
        current={current}
        editable={editable}
        threaded={threaded}
        found={found}
        dragged={gestures.dragged}
      />
      <Over {...lane} part={part.id} box={gestures.box} typing={typing} type={setTyping} select={select} />
      {bass && <OpenAccents axis={axis} height={height} found={found} />}
    </svg>
  );
});

/** The notes with which the next pass begins before its first bar: they sound here, and are written there. */
const Upbeat = ({ notes, axis, scale }: { notes: readonly RealizedNote[] } & Pick<OverProps, "axis" | "scale">) =>
  notes.map((n) => (
    <g key={n.id} className="upbeat" transform={`translate(${axis.x(n.start)} ${scale.y(n.midi)})`}>
      <title>{`${Pitch.typesetAll(n.pitch)}, upbeat of the next pass`}</title>
      <line x1={0} x2={n.duration * axis.scale} y1={0} y2={0} />
      <circle r={RADIUS - 2} />
    </g>
  ));

interface OverProps {
  data: LaneData;
  part: string;
  axis: Axis;
  scale: LaneScale;
  height: number;
  box: NoteGestures["box"];
  /** The note whose word is typed. */
  typing: string | null;
  type(note: string | null): void;
  select(note: string): void;
}

/** What lies over the notes for a while: those that are played in, a box around some, a word that is typed. */
function Over({ data, part, axis, scale, height, box, typing, type, select }: OverProps) {
  const end = (note: string) => {
    type(null);
    select(note);
  };
  const place = { section: data.section.id, part };
  return (
    <>
      <LiveNotes part={part} axis={axis} scale={scale} />
      {box && <Box from={box.from} to={box.to} />}
      {typing !== null && <WordEntry place={place} note={typing} axis={axis} height={height} go={type} end={end} />}
    </>
  );
}

interface NotesProps {
  data: LaneData;
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
  found: readonly Numbered[];
  /** The note that is dragged: what it would be is told beside it. */
  dragged: string | null;
}

/** Height of a line of words, and their room to the foot of the lane. */
const [WORD_LINE, WORD_FOOT] = [13, 5];

function Notes({
  data,
  part,
  notes,
  roles,
  axis,
  scale,
  window,
  height,
  threaded,
  found,
  ids,
  current,
  dragged,
  ...rest
}: NotesProps) {
  const names = usePreferences((s) => s.names);
  const verse = usePreferences((s) => s.verse);
  const visible = notes.filter((n) => inSight(axis, window, n.start, n.start + n.duration));
  const aside = setAside(
    visible.map((n) => ({ start: n.start, y: scale.y(n.midi) })),
    RADIUS * 2 - 2,
  );
  const numbers = numbersOf(found);
  const words = wordLines(part.notes, axis, verse);
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
      aside={nth(aside, i)}
      tint={rest.tint}
      meter={data.meter}
      scale={axis.scale}
      lyricY={height - WORD_FOOT - (1 - (words.get(note.id) ?? 0)) * WORD_LINE}
      selected={ids.includes(note.id)}
      focusable={note.id === current}
      editable={rest.editable}
      names={names}
      word={note.lyrics?.[verse] ?? ""}
      {...(dragged === note.id || `${dragged}-copy` === note.id
        ? { inKey: data.key.pcs.includes(note.midi % 12) }
        : {})}
      onKick={kickAt.has(note.start)}
      {...(numbers.has(note.id) ? { finding: sure(numbers.get(note.id)) } : {})}
    />
  ));
}

/** A note with what is changed of it. */
const moved = (n: RealizedNote, { start, duration, pitch }: NoteChange): Partial<RealizedNote> => ({
  ...(start !== undefined ? { start } : {}),
  ...(duration !== undefined ? { duration } : {}),
  ...(pitch !== undefined ? { pitch, midi: Pitch.midi(pitch) } : { midi: n.midi }),
});
