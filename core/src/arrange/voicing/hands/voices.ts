import { given } from "../../../base/given";
import { firstOf, nth, sure } from "../../../base/list";
import { fail, ok, type Result } from "../../../base/result";
import { noteOf, mod, pitchMidi, pitchName, type PitchName } from "../../../theory/pitch/pitch";
import { QUARTER, type Ticks } from "../../../theory/time/meter";
import { chordToneName, toneRole } from "../../../theory/chord/chord";
import { chordOf } from "../../../theory/chord/progression";
import { partOf, sectionOf } from "../../../song/document";
import type { Edit } from "../../../song/edits";
import { linkedNotes, voicesOf, type LinkedNote } from "../../../song/linked";
import type { ChordEvent, Note, Part, Section, Song, Stroke, Voicing } from "../../../song/schema";
import { heldAs, neckIn } from "../strung";
import { playable } from "./playable";

/** A note of a chord part with what is to be different of it. */
export interface VoiceChange {
  /** Of the note as the part plays it in its section. */
  id: string;
  pitch?: PitchName | undefined;
  /** Only in one stroke: the voice comes later than the chord. */
  start?: Ticks | undefined;
  duration?: Ticks | undefined;
  velocity?: number | undefined;
}

/** What is changed of the voices of a chord part. */
export interface VoiceRequest {
  section: string;
  part: string;
  /** Every time the chord is struck, or the strokes of these notes alone. */
  of: "chord" | "stroke";
  change?: readonly VoiceChange[];
  remove?: readonly string[];
  /** Notes beside those that sound there; at the beginning of a stroke where none is named. */
  add?: readonly { start: Ticks; pitch: PitchName; duration?: Ticks }[];
}

type StrokeNote = Stroke["notes"][number];

/** One time a chord is struck, as the part plays it. */
interface Struck {
  at: Ticks;
  notes: LinkedNote[];
}

/** A chord while its voices are changed. */
interface Working {
  event: ChordEvent;
  layout: Voicing;
  pitches: PitchName[];
  strokes: Stroke[];
  struck: Struck[];
}

const strokeOf = ({ note, stroke }: LinkedNote): Ticks => stroke ?? note.start;

/** The strokes of a chord, in order. */
function struckIn(notes: readonly LinkedNote[], chord: string): Struck[] {
  const by = new Map<Ticks, LinkedNote[]>();
  for (const n of notes) if (n.chordId === chord) by.set(strokeOf(n), [...(by.get(strokeOf(n)) ?? []), n]);
  return [...by].map(([at, list]) => ({ at, notes: list })).sort((a, b) => a.at - b.at);
}

/** The stroke of a chord as it can be changed: as it is stored, or as it is played. */
function opened(w: Working, { at, notes }: Struck): Stroke {
  const from = at - w.event.start;
  const stored = w.strokes.find((s) => s.at === from);
  if (stored) return stored;
  const fresh: Stroke = { at: from, notes: notes.map(({ note }) => ({ pitch: note.pitch })) };
  w.strokes.push(fresh);
  return fresh;
}

/** Puts another note in the place of one of a stroke; nothing takes it out. */
function put(w: Working, struck: Struck, { note }: LinkedNote, change: (note: StrokeNote) => StrokeNote | null): void {
  const stroke = opened(w, struck);
  const from = note.start - struck.at;
  const same = (n: StrokeNote) => n.pitch === note.pitch && (n.from ?? 0) === from;
  const at = stroke.notes.findIndex(same);
  if (at < 0) return;
  const next = change(nth(stroke.notes, at));
  const notes = stroke.notes.flatMap((n, i) => (i === at ? (next ?? []) : n));
  w.strokes = w.strokes.map((s) => (s === stroke ? { ...s, notes } : s));
}

/** A pitch by octaves away, with the same name. */
const byOctaves = (pitch: PitchName, semitones: number): PitchName =>
  pitchName(pitchMidi(pitch) + semitones, noteOf(pitch));

/** The voice of the layout that a note comes from, and how far above it lies; none where only its stroke has it. */
function voiceOf({ layout }: Working, pitch: PitchName): { voice: PitchName; above: number } | null {
  const midi = pitchMidi(pitch);
  const same = layout.pitches.filter((p) => mod(pitchMidi(p) - midi, 12) === 0);
  const near = [...same].sort((a, b) => Math.abs(pitchMidi(a) - midi) - Math.abs(pitchMidi(b) - midi))[0];
  return near === undefined ? null : { voice: near, above: midi - pitchMidi(near) };
}

const later = (n: StrokeNote, from: Ticks): StrokeNote => {
  const { from: _, ...rest } = n;
  return from > 0 ? { ...rest, from } : rest;
};

/** A note of a stroke with what is different of it. */
const changed = (n: StrokeNote, struck: Struck, change: Omit<VoiceChange, "id">): StrokeNote => ({
  ...(change.start === undefined ? n : later(n, change.start - struck.at)),
  ...(change.pitch === undefined ? {} : { pitch: change.pitch }),
  ...(change.duration === undefined ? {} : { duration: change.duration }),
  ...(change.velocity === undefined ? {} : { velocity: change.velocity }),
});

/** Changes a voice every time its chord is struck. */
function changeAlways(w: Working, struck: Struck, n: LinkedNote, { pitch, duration, velocity }: VoiceChange): void {
  const found = voiceOf(w, n.note.pitch);
  if (!found) return put(w, struck, n, (s) => changed(s, struck, { pitch, duration, velocity }));
  if (duration !== undefined || velocity !== undefined)
    for (const other of w.struck)
      for (const m of other.notes)
        if (m.note.pitch === n.note.pitch) put(w, other, m, (s) => changed(s, other, { duration, velocity }));
  const at = w.pitches.indexOf(found.voice);
  if (pitch !== undefined && at >= 0) w.pitches[at] = byOctaves(pitch, -found.above);
}

/** Takes a voice out of its chord, or out of one stroke. */
function takeOut(w: Working, struck: Struck, n: LinkedNote, of: VoiceRequest["of"]): void {
  const found = of === "chord" ? voiceOf(w, n.note.pitch) : null;
  if (found) w.pitches = w.pitches.filter((p) => p !== found.voice);
  else put(w, struck, n, () => null);
}

/** The chord that is struck last at or before a tick, with that stroke. */
function soundingAt(notes: readonly LinkedNote[], tick: Ticks): { chord: string; at: Ticks } | null {
  const last = notes
    .filter((n) => strokeOf(n) <= tick)
    .reduce<LinkedNote | null>((best, n) => (best && strokeOf(best) >= strokeOf(n) ? best : n), null);
  return last && { chord: last.chordId, at: strokeOf(last) };
}

/** Adds a note to a chord, or to one stroke of it. */
function addTo(
  w: Working,
  at: Ticks,
  { start, pitch, duration }: NonNullable<VoiceRequest["add"]>[number],
  of: VoiceRequest["of"],
): void {
  const struck = sure(w.struck.find((s) => s.at === at));
  if (of === "chord") {
    const above = voiceOf(w, firstOf(struck.notes).note.pitch)?.above ?? 0;
    w.pitches.push(byOctaves(pitch, -above));
    return;
  }
  const stroke = opened(w, struck);
  const note = later({ pitch, ...(duration === undefined ? {} : { duration }) }, start - at);
  w.strokes = w.strokes.map((s) => (s === stroke ? { ...s, notes: [...s.notes, note] } : s));
}

/** What can be asked for, with the part whose layouts are changed. */
interface Asked {
  song: Song;
  section: Section;
  part: Part;
  owner: Part;
  of: VoiceRequest["of"];
}

/**
 * The edit that changes voices of a part that plays the chords: in the layout of their chords, which is pinned then, or
 * in single strokes, with the part still linked to its chords. Errors: `voice.place`, `voice.note`, `voice.none` (the
 * last voice of a chord), `voice.before` (earlier than its chord is struck), and those of `playable`.
 */
export function changeVoices(song: Song, request: VoiceRequest): Result<Edit> {
  const section = sectionOf(song, request.section);
  const part = partOf(song, request.part);
  const owner = part && partOf(song, voicesOf(part));
  if (!section || !part?.link || !owner) return fail("voice.place", "This part does not play the chords");
  if (part.link.kind === "block") return ok(blockVoices(section, part, request));
  const notes = linkedNotes(song, section, part);
  const asked: Asked = { song, section, part, owner, of: request.of };
  const works = new Map<string, Working>();
  const workOn = (chord: string): Working | null => {
    const event = section.chords.find((c) => c.id === chord);
    const layout = event?.voicings?.[owner.id];
    if (!event || !layout) return null;
    const known = works.get(chord);
    if (known) return known;
    const strokes = [...(event.voicings?.[part.id]?.strokes ?? [])];
    const made = { event, layout, pitches: [...layout.pitches], strokes, struck: struckIn(notes, chord) };
    works.set(chord, made);
    return made;
  };
  const byId = new Map(notes.map((n) => [n.note.id, n]));
  const each = (id: string, run: (w: Working, struck: Struck, n: LinkedNote) => void): boolean => {
    const n = byId.get(id);
    const w = n && workOn(n.chordId);
    if (!n || !w) return false;
    run(w, sure(w.struck.find((s) => s.at === strokeOf(n))), n);
    return true;
  };
  const early = (request.change ?? []).find(({ id, start }) => {
    const n = byId.get(id);
    return request.of === "stroke" && n && start !== undefined && start < strokeOf(n);
  });
  if (early)
    return fail("voice.before", "A voice cannot come before its chord is struck", {
      hint: "Change the rhythm of the part, or where the chord begins.",
    });
  const done = [
    ...(request.change ?? []).map((change) =>
      each(change.id, (w, struck, n) =>
        request.of === "chord"
          ? changeAlways(w, struck, n, change)
          : put(w, struck, n, (s) => changed(s, struck, change)),
      ),
    ),
    ...(request.remove ?? []).map((id) => each(id, (w, struck, n) => takeOut(w, struck, n, request.of))),
    ...(request.add ?? []).map((note) => {
      const there = soundingAt(notes, note.start);
      const w = there && workOn(there.chord);
      if (there && w) addTo(w, there.at, note, request.of);
      return Boolean(w);
    }),
  ];
  if (done.includes(false))
    return fail("voice.note", "No chord of this part is struck there", { hint: "Its rhythm says where it plays." });
  return editOf(asked, [...works.values()]);
}

/** Notes of block chords are stored: a chord that hands change is pinned as a whole and stays under its tune. */
function blockVoices(section: Section, part: Part, { change = [], remove = [], add = [] }: VoiceRequest): Edit {
  const place = { section: section.id, part: part.id };
  const stored = section.notes[part.id] ?? [];
  const touched = [...change.map((c) => c.id), ...remove];
  const ticks = new Set([...stored.filter((n) => touched.includes(n.id)), ...add].map((n) => n.start));
  const changes = new Map(change.map((c) => [c.id, given(c)]));
  const notes = stored.flatMap((n) =>
    ticks.has(n.start) && !remove.includes(n.id) ? [{ ...changes.get(n.id), id: n.id, pinned: true }] : [],
  );
  return {
    do: "all",
    label: "voices of chords",
    edits: [
      { do: "changeNotes", ...place, notes },
      ...(remove.length ? [{ do: "removeNotes" as const, ...place, notes: [...remove] }] : []),
      ...add.map(({ start, pitch, duration }): Edit => ({
        do: "addNote",
        ...place,
        note: { start, pitch, duration: duration ?? beside(stored, start), velocity: BLOCK_VELOCITY, pinned: true },
      })),
    ],
  };
}

/** How loud a voice is that is added to block chords, as the voices under a tune are. */
const BLOCK_VELOCITY = 68;

/** How long the notes are that are struck at a tick. */
const beside = (notes: readonly Note[], tick: Ticks): Ticks => notes.find((n) => n.start === tick)?.duration ?? QUARTER;

function editOf(asked: Asked, works: readonly Working[]): Result<Edit> {
  const edits: Edit[] = [];
  for (const w of works) {
    const made = editsOfChord(asked, w);
    if (!made.ok) return made;
    edits.push(...made.value);
  }
  return ok(edits.length === 1 ? firstOf(edits) : { do: "all", label: "voices of chords", edits });
}

function editsOfChord({ song, section, part, owner, of }: Asked, w: Working): Result<Edit[]> {
  const chord = { section: section.id, chord: w.event.id };
  const edits: Edit[] = [];
  if (w.pitches.join() !== w.layout.pitches.join()) {
    if (!w.pitches.length)
      return fail("voice.none", "A layout has at least one note", { hint: "Mute the part instead." });
    const held = playable({ song, section, part: owner }, w.pitches, heldBefore(song, section, owner, w.layout));
    if (!held.ok) return held;
    const pitches = [...w.pitches].sort((a, b) => pitchMidi(a) - pitchMidi(b));
    edits.push({ do: "pinVoicing", part: owner.id, ...chord, pitches, ...held.value });
  }
  const stored = w.event.voicings?.[part.id]?.strokes ?? [];
  if (w.strokes.some((s, i) => s !== stored[i])) {
    for (const { notes } of of === "stroke" ? w.strokes.filter((s) => !stored.includes(s)) : []) {
      const together = notes.filter((n) => !n.from).map((n) => n.pitch);
      const held = together.length ? playable({ song, section, part }, together) : ok({});
      if (!held.ok) return held;
    }
    edits.push({ do: "setStrokes", part: part.id, ...chord, strokes: w.strokes });
  }
  return ok(edits);
}

/** How a layout was held: as it is stored, or as the path finds it. */
function heldBefore(song: Song, section: Section, part: Part, { pitches, shape }: Voicing) {
  const neck = neckIn(song, section, part);
  if (!neck) return undefined;
  if (shape && heldAs(neck, pitches.map(pitchMidi), shape)) return shape;
  const found = playable({ song, section, part }, pitches);
  return found.ok ? found.value.shape : undefined;
}

/** A voice of a layout that is no tone of its chord, with the tones of the chord nearest to it. */
export interface ForeignVoice {
  pitch: PitchName;
  role: string;
  nearest: PitchName[];
}

/** How far a tone that is offered may lie from the voice, in semitones. */
const NEAR = 4;

/**
 * Voices of a layout that are no tones of the chord, as after its symbol was changed: they stay until somebody moves
 * them.
 */
export function foreignVoices(symbol: string, pitches: readonly PitchName[]): ForeignVoice[] {
  const chord = chordOf(symbol);
  if (!chord) return [];
  return pitches.flatMap((pitch): ForeignVoice[] => {
    const midi = pitchMidi(pitch);
    const { role, inChord } = toneRole(chord, mod(midi, 12));
    if (inChord) return [];
    const toward = (way: 1 | -1): PitchName[] => {
      for (let by = 1; by <= NEAR; by++) {
        const name = chordToneName(chord, mod(midi + way * by, 12));
        if (name !== null) return [pitchName(midi + way * by, name)];
      }
      return [];
    };
    const nearest = [...toward(-1), ...toward(1)].sort(
      (a, b) => Math.abs(pitchMidi(a) - midi) - Math.abs(pitchMidi(b) - midi),
    );
    return [{ pitch, role, nearest: nearest.filter((p) => !pitches.includes(p)) }];
  });
}

/** A stroke that was changed by hand and is not struck any more: it rests until the rhythm comes back. */
export interface RestingStroke {
  chord: ChordEvent;
  /** Where it would be struck, in ticks of the section. */
  tick: Ticks;
  pitches: PitchName[];
}

/** Strokes of a part that its rhythm does not make any more. */
export function restingStrokes(song: Song, section: Section, part: Part): RestingStroke[] {
  if (!part.link || !section.chords.some((c) => c.voicings?.[part.id]?.strokes)) return [];
  // As it would be without what hands changed: a stroke that was emptied is struck all the same.
  const bare = section.chords.map((c) => {
    const layout = c.voicings?.[part.id];
    if (!layout?.strokes) return c;
    const { strokes: _, ...rest } = layout;
    return { ...c, voicings: { ...c.voicings, [part.id]: rest } };
  });
  const struck = new Set(
    linkedNotes(song, { ...section, chords: bare }, part).map((n) => `${n.chordId} ${n.note.start}`),
  );
  return section.chords.flatMap((chord) =>
    (chord.voicings?.[part.id]?.strokes ?? []).flatMap((s): RestingStroke[] =>
      struck.has(`${chord.id} ${chord.start + s.at}`)
        ? []
        : [{ chord, tick: chord.start + s.at, pitches: s.notes.map((n) => n.pitch) }],
    ),
  );
}
