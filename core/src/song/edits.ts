import type { Draft } from "immer";
import { fail, ok, type Result } from "../result";
import { parseKey } from "../pitch/key";
import { chordSymbol } from "../chord/chord";
import { parseChord } from "../chord/parse";
import { NO_CHORD } from "../chord/progression";
import { setLine, setMeter } from "./chordEdits";
import { drumEdit } from "./drumEdits";
import { chordGroupEdit, respellSong } from "./chordGroups";
import { checked, done, field, type Applied, type Checker, type Edit } from "./edit";
import { noteEdit } from "./noteEdits";
import { partEdit } from "./partEdits";
import { LIMITS, type Note, type Section, type Song } from "./schema";

/** Applies an edit. The song that was passed in is never changed; an edit that cannot be made leaves everything as it was and says why. */
export function applyEdit(song: Song, edit: Edit): Result<Applied> {
  switch (edit.do) {
    case "setTitle":
      return withField(song, "title", edit.title);
    case "setKey": {
      const key = parseKey(edit.key);
      return key.ok ? done(song, (s) => void (s.key = `${key.value.tonic} ${key.value.mode}`)) : key;
    }
    case "setTempo":
      return withField(song, "tempo", edit.tempo);
    case "setMeter":
      return setMeter(song, edit.meter);
    case "setSwing":
      return withField(song, "swing", { ratio: edit.ratio, unit: edit.unit });
    case "respell":
      return respellSong(song, edit.key);
    case "setProfile":
      return withField(song, "profile", edit.profile);
    case "addSection":
      return addSection(song, edit);
    case "addPart":
    case "setPart":
    case "removePart":
    case "setLink":
    case "setInstrument":
    case "removeInstrument":
      return partEdit(song, edit, freshId);
    case "waive":
      return done(song, (s) => {
        s.waivers = [...s.waivers.filter((w) => w.finding !== edit.finding), { finding: edit.finding, reason: edit.reason }];
      });
    case "unwaive":
      return done(song, (s) => void (s.waivers = s.waivers.filter((w) => w.finding !== edit.finding)));
    case "removeTake":
      return done(song, (s) => void (s.takes = s.takes.filter((t) => t.id !== edit.take)));
    case "all":
      return applyAll(song, edit.edits);
    default:
      return sectionEdit(song, edit);
  }
}

/** Kept states of one part in one section; older ones give way. */
const MOST_TAKES = 24;

function keepTake(song: Song, { section, part, name }: Extract<Edit, { do: "keepTake" }>): Result<Applied> {
  const found = song.sections.find((s) => s.id === section);
  if (!found) return fail("edit.section", `No section has the id "${section}"`);
  const notes = found.notes[part] ?? [];
  const same = song.takes.filter((t) => t.sectionId === section && t.partId === part);
  const text = (list: readonly Note[]) => list.map((n) => `${n.start}:${n.duration}:${n.pitch}:${n.velocity}`).join();
  if (!notes.length || same.some((t) => text(t.notes) === text(notes))) return done(song, () => undefined);
  const named = checked("take", field.takes.element.shape.name, name);
  if (!named.ok) return named;
  return done(song, (s) => {
    const gone = same.length >= MOST_TAKES ? same[0]!.id : null;
    s.takes = s.takes.filter((t) => t.id !== gone);
    s.takes.push({ id: `t${s.nextId++}`, name: named.value, sectionId: section, partId: part, notes: [...notes] });
  });
}

function sectionEdit(song: Song, edit: Extract<Edit, { section: string }>): Result<Applied> {
  const section = song.sections.find((s) => s.id === edit.section);
  if (!section) return fail("edit.section", `No section has the id "${edit.section}"`);
  const inSection = (recipe: (s: Draft<Section>, song: Draft<Song>) => void) =>
    done(song, (s) =>
      recipe(
        s.sections.find((x) => x.id === edit.section)!,
        s,
      ),
    );
  switch (edit.do) {
    case "setSection": {
      const bars = checked("number of bars", field.sections.element.shape.bars, edit.bars ?? section.bars);
      const name = checked("name", field.sections.element.shape.name, edit.name ?? section.name);
      if (!bars.ok) return bars;
      if (!name.ok) return name;
      return inSection((s) => Object.assign(s, { bars: bars.value, name: name.value }));
    }
    case "keepTake":
      return keepTake(song, edit);
    case "removeSection":
      if (song.sections.length === 1) return fail("edit.section", "A song has at least one section");
      return done(song, (s) => {
        s.sections = s.sections.filter((x) => x.id !== edit.section);
        s.form = s.form.filter((o) => o.sectionId !== edit.section);
        s.takes = s.takes.filter((t) => t.sectionId !== edit.section);
      });
    case "setLine":
      return setLine(song, section, edit.line);
    case "setChord": {
      const chord = edit.symbol === NO_CHORD ? null : parseChord(edit.symbol);
      if (chord && !chord.ok) return chord;
      return inSection((s) => {
        const event = s.chords.find((c) => c.id === edit.chord);
        if (!event) return;
        event.symbol = chord ? chordSymbol(chord.value) : NO_CHORD;
        delete event.voicings;
        delete event.why;
        delete event.readings;
      });
    }
    case "setChords":
    case "pinChords":
    case "setReadings":
    case "arrangeChords":
    case "moveChords":
    case "copyChords":
    case "setBorder":
      return chordGroupEdit(song, section, edit);
    case "setVoicings":
      return inSection((s) => {
        for (const event of s.chords) {
          const pitches = edit.pitches[event.id];
          const stored = event.voicings?.[edit.part];
          if (pitches?.length && !stored?.pinned) (event.voicings ??= {})[edit.part] = { ...stored, pitches };
          else if (!pitches?.length && event.voicings?.[edit.part]) delete event.voicings[edit.part];
        }
      });
    case "pinVoicing":
      return inSection((s) => {
        const event = s.chords.find((c) => c.id === edit.chord);
        if (event && edit.pitches) (event.voicings ??= {})[edit.part] = { pitches: edit.pitches, pinned: true };
        else if (event?.voicings?.[edit.part]) delete event.voicings[edit.part]!.pinned;
      });
    case "pinEnds":
      return inSection((s) => {
        const event = s.chords.find((c) => c.id === edit.chord);
        const pitch = edit.top ?? edit.bottom;
        if (!event || (!pitch && !event.voicings?.[edit.part])) return;
        const voicing = ((event.voicings ??= {})[edit.part] ??= { pitches: [pitch!] });
        for (const end of ["top", "bottom"] as const) {
          if (edit[end]) voicing[end] = edit[end];
          else if (edit[end] === null) delete voicing[end];
        }
        // An end that is pinned anew lets the rest of the chord go.
        if (pitch) delete voicing.pinned;
      });
    case "setHit":
    case "changeHit":
    case "setLane":
    case "setDrums":
    case "repeatDrums":
    case "setAccents":
      return drumEdit(song, section, edit);
    default:
      return noteEdit(song, section, edit);
  }
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
      // How a part is played in a section goes with the section.
      for (const part of s.parts)
        for (const [name, value] of Object.entries(part.settings))
          if (name.endsWith(`@${copy.id}`)) part.settings[`${name.split("@")[0]}@${id}`] = value;
    }
    s.sections.push({
      ...(copy ?? { bars: edit.bars, chords: [], groove: { lanes: [] }, notes: {} }),
      id,
      name: edit.name,
      ...(source ? { copyOf: source.id } : {}),
    });
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

function freshId(song: Draft<Song>, prefix: string): string {
  const taken = new Set([...song.sections.map((s) => s.id), ...song.parts.map((p) => p.id), ...song.form.map((o) => o.id)]);
  let id;
  do id = prefix + song.nextId++;
  while (taken.has(id));
  return id;
}
