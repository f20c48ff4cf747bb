import { fail, ok, type Result } from "../result";
import { parseKey, type Key } from "../pitch/key";
import { mod, parseNote, pitchClass, pitchMidi, pitchName, transposeNote, type NoteName, type PitchName } from "../pitch/pitch";
import type { Ticks } from "../time/meter";
import { chordSymbol, type Chord } from "../chord/chord";
import { moveBySemitones, moveInScale } from "../chord/modify";
import { parseChord } from "../chord/parse";
import { NO_CHORD } from "../chord/progression";
import { sectionKey, sectionMeter } from "./document";
import { checked, done, field, type Applied, type Edit } from "./edit";
import { LIMITS, type ChordEvent, type Section, type Song } from "./schema";

export type ChordGroupEdit = Extract<
  Edit,
  { do: "setChords" | "pinChords" | "setReadings" | "arrangeChords" | "moveChords" | "copyChords" | "setBorder" }
>;

/** Shortest chord a border can be dragged to: a sixteenth. */
const SHORTEST: Ticks = 120;

export type NewChord = Omit<ChordEvent, "id"> & { id?: string };

/** Chord events with the stretch from one tick to another replaced; chords that reach into it are cut there. */
export function replaceChords(
  chords: readonly ChordEvent[],
  from: Ticks,
  to: Ticks,
  list: readonly NewChord[],
  fresh: () => string,
): ChordEvent[] {
  const kept = chords.flatMap((c): ChordEvent[] => {
    const end = c.start + c.duration;
    if (end <= from || c.start >= to) return [c];
    const parts: ChordEvent[] = [];
    if (c.start < from) parts.push({ ...c, duration: from - c.start });
    if (end > to) parts.push({ ...c, id: c.start < from ? fresh() : c.id, start: to, duration: end - to });
    return parts;
  });
  const used = new Set(kept.map((c) => c.id));
  const before = new Map(chords.map((c) => [c.id, c]));
  const added = list.map((c): ChordEvent => {
    const id = c.id && !used.has(c.id) && before.has(c.id) ? c.id : fresh();
    used.add(id);
    const old = before.get(id);
    const { voicings: _, ...plain } = c;
    // The same chord keeps its voicings; another one is voiced anew.
    return { ...plain, id, ...(old?.symbol === c.symbol && old.voicings ? { voicings: old.voicings } : {}) };
  });
  return [...kept, ...added].sort((a, b) => a.start - b.start);
}

const readable = (event: ChordEvent): Chord | null => {
  const chord = event.symbol === NO_CHORD ? null : parseChord(event.symbol);
  return chord?.ok ? chord.value : null;
};

export function chordGroupEdit(song: Song, section: Section, edit: ChordGroupEdit): Result<Applied> {
  let nextId = song.nextId;
  const fresh = () => `c${nextId++}`;
  const meter = sectionMeter(song, section);
  const put = (chords: ChordEvent[], bars = section.bars): Result<Applied> => {
    const schema = field.sections.element.shape.chords;
    const known = new Set(section.chords);
    const valid = checked(
      "chord",
      schema,
      chords.filter((c) => !known.has(c)),
    );
    if (!valid.ok) return valid;
    if (bars > LIMITS.bars) return fail("edit.bars", `The section would have ${bars} bars; ${LIMITS.bars} are allowed`);
    return done(song, (s) => {
      const target = s.sections.find((x) => x.id === section.id)!;
      target.chords = chords;
      target.bars = bars;
      s.nextId = nextId;
    });
  };
  const one = (id: string, change: (c: ChordEvent) => ChordEvent) => put(section.chords.map((c) => (c.id === id ? change(c) : c)));

  if (edit.do === "setChords") {
    if (edit.to <= edit.from) return fail("edit.chords", "The stretch to fill has no length");
    const outside = edit.chords.find((c) => c.start < edit.from || c.start + c.duration > edit.to);
    for (const c of edit.chords) {
      const read = c.symbol === NO_CHORD ? null : parseChord(c.symbol);
      if (read && !read.ok) return read;
    }
    if (outside) return fail("edit.chords", `${outside.symbol} does not lie between ticks ${edit.from} and ${edit.to}`);
    return put(
      replaceChords(section.chords, edit.from, edit.to, edit.chords, fresh),
      Math.max(section.bars, Math.ceil(edit.to / meter.bar)),
    );
  }
  if (edit.do === "setReadings")
    return one(edit.chord, (c) => {
      const { readings: _, ...rest } = c;
      return edit.readings?.length ? { ...rest, readings: edit.readings } : rest;
    });
  if (edit.do === "setBorder") return moveBorder(section, edit.chord, edit.start, put);

  const chosen = section.chords.filter((c) => edit.chords.includes(c.id));
  if (!chosen.length) return fail("edit.chords", "No such chord is in this section");
  const ids = new Set(chosen.map((c) => c.id));
  switch (edit.do) {
    case "pinChords":
      return put(
        section.chords.map((c) => {
          if (!ids.has(c.id)) return c;
          const { pinned: _, ...rest } = c;
          return edit.pinned ? { ...rest, pinned: true } : rest;
        }),
      );
    case "moveChords":
      return moveChords(section, ids, edit, sectionKey(song, section), put);
    case "copyChords": {
      const from = chosen[0]!.start;
      const length = chosen.at(-1)!.start + chosen.at(-1)!.duration - from;
      const to = edit.to ?? section.bars * meter.bar;
      const copies = chosen.map(({ id: _, ...c }) => ({ ...c, start: c.start - from + to }));
      return put(
        replaceChords(section.chords, to, to + length, copies, fresh),
        Math.max(section.bars, Math.ceil((to + length) / meter.bar)),
      );
    }
    case "arrangeChords":
      return arrange(section, chosen, edit.how, fresh, put);
  }
}

type Put = (chords: ChordEvent[], bars?: number) => Result<Applied>;

function moveBorder(section: Section, id: string, start: Ticks, put: Put): Result<Applied> {
  const index = section.chords.findIndex((c) => c.id === id);
  const chord = section.chords[index];
  if (!chord) return fail("edit.chords", "No such chord is in this section");
  const before = section.chords[index - 1];
  const touching = before && before.start + before.duration === chord.start;
  const end = chord.start + chord.duration;
  const earliest = before ? (touching ? before.start + SHORTEST : before.start + before.duration) : 0;
  if (start < earliest || start > end - SHORTEST)
    return fail("edit.border", "The border would leave a chord shorter than a sixteenth", { hint: "Delete the chord instead." });
  return put(
    section.chords.map((c, i) => {
      if (i === index) return { ...c, start, duration: end - start };
      return i === index - 1 && touching ? { ...c, duration: start - c.start } : c;
    }),
  );
}

function moveChords(
  section: Section,
  ids: ReadonlySet<string>,
  edit: { by: "scale" | "semitone"; steps: number },
  key: Key,
  put: Put,
): Result<Applied> {
  return put(
    section.chords.map((c) => {
      const chord = ids.has(c.id) ? readable(c) : null;
      if (!chord) return c;
      const moved = edit.by === "scale" ? moveInScale(chord, edit.steps, key) : moveBySemitones(chord, edit.steps, key);
      const { voicings: _, why: __, readings: ___, ...rest } = c;
      return { ...rest, symbol: chordSymbol(moved) };
    }),
  );
}

/** Rearranges chords inside the time they take together; their lengths go with them, except that swapped chords change only their names. */
function arrange(
  section: Section,
  chosen: ChordEvent[],
  how: "reverse" | "swap" | "double" | "halve" | "remove",
  fresh: () => string,
  put: Put,
): Result<Applied> {
  const from = chosen[0]!.start;
  const to = chosen.at(-1)!.start + chosen.at(-1)!.duration;
  const rest = section.chords.filter((c) => !chosen.includes(c));
  if (how === "remove") {
    // The chord before holds on over the gap.
    const kept = rest.map((c, i) => {
      const next = rest[i + 1];
      const gap = chosen.some((x) => x.start >= c.start + c.duration && (!next || x.start < next.start));
      return gap ? { ...c, duration: (next ? next.start : Math.max(c.start + c.duration, to)) - c.start } : c;
    });
    return put(kept);
  }
  if (how === "swap") {
    if (chosen.length !== 2) return fail("edit.swap", "Two chords can be swapped", { hint: "Choose two chords." });
    const [a, b] = [chosen[0]!, chosen[1]!];
    return put(
      section.chords.map((c) =>
        c === a
          ? { ...b, id: a.id, start: a.start, duration: a.duration }
          : c === b
            ? { ...a, id: b.id, start: b.start, duration: b.duration }
            : c,
      ),
    );
  }
  if (section.chords.some((c) => !chosen.includes(c) && c.start >= from && c.start < to))
    return fail("edit.chords", "The chosen chords are not next to each other", { hint: "Choose a row of neighboring chords." });
  if (how === "reverse") {
    let at = from;
    const turned = [...chosen].reverse().map((c) => {
      const moved = { ...c, start: at };
      at += c.duration;
      return moved;
    });
    return put([...rest, ...turned].sort((a, b) => a.start - b.start));
  }
  if (how === "double") {
    if (chosen.some((c) => c.duration < 2 * SHORTEST)) return fail("edit.rhythm", "A chord would become shorter than a sixteenth");
    const half = (to - from) / 2;
    const pass = (offset: number, again: boolean) =>
      chosen.map((c) => ({
        ...c,
        id: again ? fresh() : c.id,
        start: Math.round(from + offset + (c.start - from) / 2),
        duration: Math.round(c.duration / 2),
      }));
    return put([...rest, ...pass(0, false), ...pass(half, true)].sort((a, b) => a.start - b.start));
  }
  const kept = chosen.flatMap((c, i) => (i % 2 ? [] : [{ ...c, duration: (chosen[i + 2]?.start ?? to) - c.start }]));
  return put([...rest, ...kept].sort((a, b) => a.start - b.start));
}

/**
 * Writes the whole song in another spelling of its key (D# minor as Eb minor) without changing a sound: every root, bass, note and section key moves
 * by the same number of letters. Error `edit.respell` when the two tonics do not sound alike.
 */
export function respellSong(song: Song, target: string): Result<Applied> {
  const from = parseKey(song.key);
  const to = parseKey(target);
  if (!from.ok) return from;
  if (!to.ok) return to;
  if (from.value.pcs[0] !== to.value.pcs[0] || from.value.mode !== to.value.mode)
    return fail("edit.respell", `${target} does not sound like ${song.key}`, {
      hint: "Use another key of the same sound, or set the key instead.",
    });
  const letters = mod(parseNote(to.value.tonic)!.step - parseNote(from.value.tonic)!.step, 7);
  const note = (name: NoteName): NoteName => transposeNote(name, letters, 0);
  const pitch = (name: PitchName): PitchName => pitchName(pitchMidi(name), note(name.replace(/-?\d+$/, "")));
  const symbol = (text: string): string => {
    const chord = text === NO_CHORD ? null : parseChord(text);
    if (!chord?.ok) return text;
    return chordSymbol({ ...chord.value, root: note(chord.value.root), ...(chord.value.bass ? { bass: note(chord.value.bass) } : {}) });
  };
  const key = (text: string): string => {
    const read = parseKey(text);
    if (!read.ok) return text;
    const renamed = parseKey(`${note(read.value.tonic)} ${read.value.mode}`);
    return renamed.ok && pitchClass(renamed.value.tonic) === pitchClass(read.value.tonic)
      ? `${renamed.value.tonic} ${renamed.value.mode}`
      : text;
  };
  const result = done(song, (s) => {
    s.key = `${to.value.tonic} ${to.value.mode}`;
    for (const section of s.sections) {
      if (section.key) section.key = key(section.key);
      for (const chord of section.chords) {
        chord.symbol = symbol(chord.symbol);
        if (chord.readings) chord.readings = chord.readings.map(symbol);
        for (const voicing of Object.values(chord.voicings ?? {})) voicing.pitches = voicing.pitches.map(pitch);
      }
      for (const n of Object.values(section.notes).flat()) {
        n.pitch = pitch(n.pitch);
        if (n.glideTo) n.glideTo = pitch(n.glideTo);
      }
    }
    for (const take of s.takes) for (const n of take.notes) n.pitch = pitch(n.pitch);
  });
  return result.ok ? ok(result.value) : result;
}
