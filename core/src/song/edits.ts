import { produce, type Draft } from "immer";
import { fail, ok, type Problem, type Result } from "../result";
import { parseKey, spellInKey } from "../pitch/key";
import { pitchMidi, type PitchName } from "../pitch/pitch";
import { parseMeter, type Ticks } from "../time/meter";
import { parseChord } from "../chord/parse";
import { chordSymbol, chordToneName } from "../chord/chord";
import { LINE_LIMIT, NO_CHORD, readLine, writeLine } from "../chord/progression";
import { sectionKey, sectionMeter } from "./document";
import { LIMITS, SongSchema, type ChordEvent, type Drum, type Note, type Part, type Profile, type Section, type Song } from "./schema";

/**
 * Every change to a song is one of these edits: plain data with a name, applied by a pure function song → song. Fixes, undo, autosave and
 * the worker all carry edits.
 */
export type Edit =
  | { do: "setTitle"; title: string }
  | { do: "setKey"; key: string }
  | { do: "setTempo"; tempo: number }
  | { do: "setMeter"; meter: string }
  | { do: "setSwing"; ratio: number; unit: 8 | 16 }
  | { do: "setProfile"; profile: Profile }
  | { do: "setSection"; section: string; name?: string; bars?: number }
  | { do: "addSection"; name: string; bars: number; copyOf?: string }
  | { do: "removeSection"; section: string }
  | { do: "setLine"; section: string; line: string }
  | { do: "setChord"; section: string; chord: string; symbol: string }
  | { do: "setVoicings"; section: string; part: string; pitches: Record<string, PitchName[]> }
  | { do: "pinVoicing"; section: string; part: string; chord: string; pitches: PitchName[] | null }
  | { do: "addNote"; section: string; part: string; note: Omit<Note, "id"> }
  | { do: "changeNotes"; section: string; part: string; notes: ({ id: string } & Partial<Omit<Note, "id">>)[] }
  | { do: "removeNotes"; section: string; part: string; notes: string[] }
  | { do: "setNotes"; section: string; part: string; notes: (Omit<Note, "id"> & { id?: string })[] }
  | { do: "setHit"; section: string; drum: Drum; start: Ticks; velocity: number | null }
  | { do: "repeatDrums"; section: string; bar: number }
  | { do: "setAccents"; section: string; accents: Ticks[] | null }
  | { do: "setPart"; part: string; name?: string; instrument?: string; muted?: boolean; settings?: Part["settings"]; loop?: boolean }
  | { do: "addPart"; name: string; role: Part["role"]; instrument: string }
  | { do: "removePart"; part: string }
  | { do: "waive"; finding: string; reason: string }
  | { do: "unwaive"; finding: string }
  | { do: "all"; label: string; edits: Edit[] };

export interface Applied {
  song: Song;
  /** Places of a chord line that could not be read; what stood there stayed. */
  problems: Problem[];
}

const field = SongSchema.shape;

interface Checker<T> {
  safeParse(value: unknown): { success: true; data: T } | { success: false; error: { issues: readonly { message: string }[] } };
}

function checked<T>(name: string, schema: Checker<T>, value: unknown): Result<T> {
  const result = schema.safeParse(value);
  if (result.success) return ok(result.data);
  const issue = result.error.issues[0]!;
  return fail(`edit.${name}`, `The ${name} ${JSON.stringify(value)} cannot be used: ${issue.message}`);
}

/** Applies an edit. The song that was passed in is never changed; an edit that cannot be made leaves everything as it was and says why. */
export function applyEdit(song: Song, edit: Edit): Result<Applied> {
  switch (edit.do) {
    case "setTitle": return withField(song, "title", edit.title);
    case "setKey": {
      const key = parseKey(edit.key);
      return key.ok ? done(song, (s) => void (s.key = `${key.value.tonic} ${key.value.mode}`)) : key;
    }
    case "setTempo": return withField(song, "tempo", edit.tempo);
    case "setMeter": return setMeter(song, edit.meter);
    case "setSwing": return withField(song, "swing", { ratio: edit.ratio, unit: edit.unit });
    case "setProfile": return withField(song, "profile", edit.profile);
    case "addSection": return addSection(song, edit);
    case "addPart": return song.parts.length >= LIMITS.parts ? fail("edit.part", `A song has at most ${LIMITS.parts} parts`) : done(song, (s) => void s.parts.unshift({ id: freshId(s, "p"), name: edit.name, role: edit.role, instrument: edit.instrument, settings: {} }));
    case "setPart": return onPart(song, edit.part, (p) => {
      if (edit.name !== undefined) p.name = edit.name;
      if (edit.instrument !== undefined) p.instrument = edit.instrument;
      if (edit.muted !== undefined) p.muted = edit.muted;
      if (edit.settings) Object.assign(p.settings, edit.settings);
      if (edit.loop !== undefined && p.link) p.link.loop = edit.loop;
    });
    case "removePart": return onPart(song, edit.part, (_, s) => {
      s.parts = s.parts.filter((p) => p.id !== edit.part);
      for (const section of s.sections) {
        delete section.notes[edit.part];
        for (const chord of section.chords) delete chord.voicings?.[edit.part];
      }
    });
    case "waive": return done(song, (s) => {
      s.waivers = [...s.waivers.filter((w) => w.finding !== edit.finding), { finding: edit.finding, reason: edit.reason }];
    });
    case "unwaive": return done(song, (s) => void (s.waivers = s.waivers.filter((w) => w.finding !== edit.finding)));
    case "all": return applyAll(song, edit.edits);
    default: return sectionEdit(song, edit);
  }
}

function sectionEdit(song: Song, edit: Extract<Edit, { section: string }>): Result<Applied> {
  const section = song.sections.find((s) => s.id === edit.section);
  if (!section) return fail("edit.section", `No section has the id "${edit.section}"`);
  const inSection = (recipe: (s: Draft<Section>, song: Draft<Song>) => void) => done(song, (s) => recipe(s.sections.find((x) => x.id === edit.section)!, s));
  switch (edit.do) {
    case "setSection": {
      const bars = checked("number of bars", field.sections.element.shape.bars, edit.bars ?? section.bars);
      const name = checked("name", field.sections.element.shape.name, edit.name ?? section.name);
      if (!bars.ok) return bars;
      if (!name.ok) return name;
      return inSection((s) => Object.assign(s, { bars: bars.value, name: name.value }));
    }
    case "removeSection":
      if (song.sections.length === 1) return fail("edit.section", "A song has at least one section");
      return done(song, (s) => {
        s.sections = s.sections.filter((x) => x.id !== edit.section);
        s.form = s.form.filter((o) => o.sectionId !== edit.section);
      });
    case "setLine": return setLine(song, section, edit.line);
    case "setChord": {
      const chord = edit.symbol === NO_CHORD ? null : parseChord(edit.symbol);
      if (chord && !chord.ok) return chord;
      return inSection((s) => {
        const event = s.chords.find((c) => c.id === edit.chord);
        if (!event) return;
        event.symbol = chord ? chordSymbol(chord.value) : NO_CHORD;
        delete event.voicings;
      });
    }
    case "setVoicings": return inSection((s) => {
      for (const event of s.chords) {
        const pitches = edit.pitches[event.id];
        if (pitches?.length && !event.voicings?.[edit.part]?.pinned) (event.voicings ??= {})[edit.part] = { pitches };
        else if (!pitches?.length && event.voicings?.[edit.part]) delete event.voicings[edit.part];
      }
    });
    case "pinVoicing": return inSection((s) => {
      const event = s.chords.find((c) => c.id === edit.chord);
      if (event && edit.pitches) (event.voicings ??= {})[edit.part] = { pitches: edit.pitches, pinned: true };
      else if (event?.voicings?.[edit.part]) delete event.voicings[edit.part]!.pinned;
    });
    case "setHit": return inSection((s) => setHit(s, edit));
    case "repeatDrums": {
      const bar = sectionMeter(song, section).bar;
      return inSection((s) => {
        for (const lane of s.groove.lanes) {
          const pattern = lane.hits.filter((h) => h.start >= edit.bar * bar && h.start < (edit.bar + 1) * bar);
          lane.hits = Array.from({ length: s.bars }, (_, i) => pattern.map((h) => ({ ...h, start: h.start + (i - edit.bar) * bar }))).flat();
        }
      });
    }
    case "setAccents": return inSection((s) => {
      if (edit.accents) s.groove.accents = [...new Set(edit.accents)].sort((a, b) => a - b);
      else delete s.groove.accents;
    });
    default: return noteEdit(song, section, edit);
  }
}

type NoteEdit = Extract<Edit, { do: "addNote" | "changeNotes" | "removeNotes" | "setNotes" }>;

function noteEdit(song: Song, section: Section, edit: NoteEdit): Result<Applied> {
  if (!song.parts.some((p) => p.id === edit.part)) return fail("edit.part", `No part has the id "${edit.part}"`);
  const schema = field.sections.element.shape.notes.valueType;
  const before = section.notes[edit.part] ?? [];
  let nextId = song.nextId;
  const fresh = () => `n${nextId++}`;
  let after: Note[];
  if (edit.do === "addNote") after = [...before, { ...edit.note, id: fresh() }];
  else if (edit.do === "removeNotes") after = before.filter((n) => !edit.notes.includes(n.id));
  else if (edit.do === "setNotes") {
    const used = new Set(Object.entries(section.notes).flatMap(([part, list]) => (part === edit.part ? [] : list.map((n) => n.id))));
    after = edit.notes.map((n) => {
      const id = n.id && !used.has(n.id) ? n.id : fresh();
      used.add(id);
      return { ...n, id };
    });
  } else {
    const changes = new Map(edit.notes.map((n) => [n.id, n]));
    after = before.map((n) => {
      const change = changes.get(n.id);
      if (!change) return n;
      // A generated reason and glide no longer hold once the note stands elsewhere.
      const { reason: _, glideTo: __, ...moved } = n;
      const elsewhere = (change.pitch !== undefined && change.pitch !== n.pitch) || (change.start !== undefined && change.start !== n.start);
      return { ...(elsewhere ? moved : n), ...change };
    });
  }
  // Notes that were there before were checked before.
  const known = new Set(before);
  const valid = checked("note", schema, after.filter((n) => !known.has(n)));
  if (!valid.ok) return fail("edit.note", valid.error.message.replace(/^The note .* cannot be used/s, "The note cannot be used"));
  const latest = section.bars * sectionMeter(song, section).bar;
  const outside = after.find((n) => n.start >= latest && !before.some((b) => b.id === n.id && b.start === n.start));
  if (outside) return fail("edit.note", `A note starts at tick ${outside.start}; the section ends at tick ${latest}`, { hint: "Make the section longer first." });
  return done(song, (s) => {
    s.sections.find((x) => x.id === section.id)!.notes[edit.part] = [...after.filter((n) => known.has(n)), ...valid.value].sort((a, b) => a.start - b.start || pitchMidi(a.pitch) - pitchMidi(b.pitch));
    s.nextId = nextId;
  });
}

function setHit(section: Draft<Section>, { drum, start, velocity }: { drum: Drum; start: Ticks; velocity: number | null }): void {
  let lane = section.groove.lanes.find((l) => l.drum === drum);
  if (!lane) section.groove.lanes.push((lane = { drum, hits: [] }));
  const hit = lane.hits.find((h) => h.start === start);
  if (velocity === null) lane.hits = lane.hits.filter((h) => h.start !== start);
  else if (hit) hit.velocity = Math.round(Math.min(127, Math.max(1, velocity)));
  else {
    lane.hits.push({ start, velocity: Math.round(Math.min(127, Math.max(1, velocity))) });
    lane.hits.sort((a, b) => a.start - b.start);
  }
}

/** Replaces the chords of a section by those of a line. Chords that keep place, length and symbol keep their voicings and pins. */
function setLine(song: Song, section: Section, line: string): Result<Applied> {
  const meter = sectionMeter(song, section);
  const parsed = readLine(line, meter);
  if (!parsed.bars) return { ok: false, error: parsed.problems[0] ?? { code: "line.empty", message: "The line has no chord." } };
  if (parsed.bars > LIMITS.bars) return fail("line.bars", `The line has ${parsed.bars} bars; a section has at most ${LIMITS.bars}`, { hint: `A line has at most ${LINE_LIMIT} characters and ${LIMITS.bars} bars.` });
  let nextId = song.nextId;
  // Where the line cannot be read, what stood there stays, cut to that place.
  const kept = parsed.unread.flatMap((u) => section.chords.flatMap((c): ChordEvent[] => {
    const start = Math.max(c.start, u.start);
    const end = Math.min(c.start + c.duration, u.start + u.duration);
    if (end <= start) return [];
    return start === c.start && end === c.start + c.duration ? [c] : [{ ...c, id: `c${nextId++}`, start, duration: end - start }];
  }));
  const old = new Map(section.chords.map((c) => [`${c.start}:${c.symbol}`, c]));
  const chords: ChordEvent[] = [...parsed.chords.map((c): ChordEvent => {
    const same = old.get(`${c.start}:${c.symbol}`);
    if (!same) return { id: `c${nextId++}`, ...c };
    return same.duration === c.duration ? same : { ...same, duration: c.duration };
  }), ...kept].sort((a, b) => a.start - b.start);
  const result = done(song, (s) => {
    const target = s.sections.find((x) => x.id === section.id)!;
    target.chords = chords;
    target.bars = Math.max(parsed.bars, lastUsedBar(section, meter.bar));
    s.nextId = nextId;
  });
  return result.ok ? ok({ ...result.value, problems: parsed.problems }) : result;
}

/** Number of bars that hold notes or drum hits: a shorter chord line never cuts them off. */
function lastUsedBar(section: Section, bar: Ticks): number {
  const starts = [...Object.values(section.notes).flatMap((list) => list.map((n) => n.start)), ...section.groove.lanes.flatMap((l) => l.hits.map((h) => h.start))];
  return starts.reduce((last, start) => Math.max(last, Math.floor(start / bar) + 1), 1);
}

/** Changes the meter: chords are shared out anew bar by bar, notes and hits keep their place in their bar. Fails where the new bar is too short for them. */
function setMeter(song: Song, text: string): Result<Applied> {
  const next = parseMeter(text);
  if (!next.ok) return next;
  const meter = next.value;
  for (const section of song.sections) {
    if (section.meter) continue;
    const old = sectionMeter(song, section).bar;
    const starts = [...Object.values(section.notes).flat(), ...section.groove.lanes.flatMap((l) => l.hits)].map((n) => n.start);
    const lost = starts.find((start) => start >= 0 && start % old >= meter.bar);
    if (lost !== undefined) return fail("edit.meter", `${section.name}, bar ${Math.floor(lost / old) + 1} has a note or hit at tick ${lost % old}; a bar of ${meter.text} has ${meter.bar} ticks`, { hint: "Move or delete what lies past the end of the shorter bar first." });
    const line = readLine(writeLine(section.chords, sectionMeter(song, section), section.bars), meter);
    if (section.chords.length && line.problems.length) return fail("edit.meter", `${section.name}: ${line.problems[0]!.message}`, line.problems[0]!.hint ? { hint: line.problems[0]!.hint } : {});
  }
  return done(song, (s) => {
    for (const section of s.sections) {
      if (section.meter) continue;
      const original = song.sections.find((x) => x.id === section.id)!;
      const oldMeter = sectionMeter(song, original);
      const move = (start: Ticks) => (start < 0 ? start : Math.floor(start / oldMeter.bar) * meter.bar + (start % oldMeter.bar));
      for (const list of Object.values(section.notes)) for (const note of list) note.start = move(note.start);
      for (const lane of section.groove.lanes) for (const hit of lane.hits) hit.start = move(hit.start);
      if (section.groove.accents) section.groove.accents = section.groove.accents.filter((a) => a % oldMeter.bar < meter.bar).map(move);
      if (!original.chords.length) continue;
      const line = readLine(writeLine(original.chords, oldMeter, original.bars), meter);
      section.chords = line.chords.map((c, i) => ({ ...(original.chords[i]?.symbol === c.symbol ? original.chords[i]! : { id: `c${s.nextId++}` }), ...c }));
    }
    s.meter = meter.text;
  });
}

function addSection(song: Song, edit: Extract<Edit, { do: "addSection" }>): Result<Applied> {
  if (song.sections.length >= LIMITS.sections) return fail("edit.section", `A song has at most ${LIMITS.sections} sections`);
  const source = edit.copyOf ? song.sections.find((s) => s.id === edit.copyOf) : undefined;
  return done(song, (s) => {
    const id = freshId(s, "s");
    const copy = source ? structuredClone(source) : null;
    if (copy) {
      copy.chords = copy.chords.map((c) => ({ ...c, id: freshId(s, "c") }));
      for (const list of Object.values(copy.notes)) for (const note of list) note.id = freshId(s, "n");
    }
    s.sections.push({ ...(copy ?? { bars: edit.bars, chords: [], groove: { lanes: [] }, notes: {} }), id, name: edit.name, ...(source ? { copyOf: source.id } : {}) });
    s.form.push({ id: freshId(s, "o"), sectionId: id });
  });
}

function applyAll(song: Song, edits: Edit[]): Result<Applied> {
  let current: Applied = { song, problems: [] };
  for (const edit of edits) {
    const next = applyEdit(current.song, edit);
    if (!next.ok) return next;
    current = { song: next.value.song, problems: [...current.problems, ...next.value.problems] };
  }
  return ok(current);
}

function withField<K extends "title" | "tempo" | "swing" | "profile">(song: Song, name: K, value: Song[K]): Result<Applied> {
  const result = checked(name, field[name] as unknown as Checker<Song[K]>, value);
  return result.ok ? done(song, (s) => void ((s as Song)[name] = result.value)) : result;
}

function onPart(song: Song, id: string, recipe: (part: Draft<Part>, song: Draft<Song>) => void): Result<Applied> {
  if (!song.parts.some((p) => p.id === id)) return fail("edit.part", `No part has the id "${id}"`);
  return done(song, (s) => recipe(s.parts.find((p) => p.id === id)!, s));
}

function freshId(song: Draft<Song>, prefix: string): string {
  const taken = new Set([...song.sections.map((s) => s.id), ...song.parts.map((p) => p.id), ...song.form.map((o) => o.id)]);
  let id;
  do id = prefix + song.nextId++;
  while (taken.has(id));
  return id;
}

const done = (song: Song, recipe: (draft: Draft<Song>) => void): Result<Applied> => ok({ song: produce(song, (draft) => void recipe(draft)), problems: [] });

/** A pitch spelled as the chord it stands in wants it, otherwise as the key does. */
export function spellAt(song: Song, section: Section, tick: Ticks, midi: number): PitchName {
  const event = section.chords.findLast((c) => c.start <= Math.max(0, tick) && c.start + c.duration > Math.max(0, tick));
  const parsed = event && event.symbol !== NO_CHORD ? parseChord(event.symbol) : null;
  const name = parsed?.ok ? chordToneName(parsed.value, ((midi % 12) + 12) % 12) : null;
  const inKey = spellInKey(midi, sectionKey(song, section));
  if (!name) return inKey;
  const octave = Number(/-?\d+$/.exec(inKey)![0]);
  for (const o of [octave, octave - 1, octave + 1]) if (pitchMidi(name + o) === midi) return name + o;
  return inKey;
}
