import { given } from "../base/given";
import { firstOf, lastOf, nth, sure } from "../base/list";
import { fail, must, ok, type Result } from "../base/result";
import { keyName, parseKey, spellInKey, type Key } from "../theory/pitch/key";
import { mod, pitchName, plainName } from "../theory/pitch/pitch";
import { parseMeter, type Ticks } from "../theory/time/meter";
import { counted } from "../theory/words/english";
import { INSTRUMENTS, midiRange, type Instrument } from "../theory/instrument/instruments";
import { findKeys } from "../hear/harmony/keys";
import { newSong, sectionOf, type NewSong, type Opened } from "../song/document";
import { applyEdit, type Edit } from "../song/edits";
import { LIMITS, type NewNote, type Part, type Song } from "../song/schema";
import { drumOfTrack, drumsOf } from "./midiDrums";
import { importMidi, notated } from "./midiImport";
import type { MidiContents, MidiTrack } from "./midiRead";

/** The lowest pitch of a line that is a bass. */
const BASS_BELOW = 48;
/** A note farther off the grid than this keeps what it was late or early. */
const OFF = 3;

/** Drums are a part as well. */
const MOST_TRACKS = LIMITS.parts - 1;

/** Programs that sing: choir, voice, synthesized voice (GM level 1, from memory). */
const SUNG: readonly number[] = [52, 53, 54];

/**
 * The instrument of a program of General MIDI (level 1): the known one nearest to it in its family of eight that has
 * the range, else one of another family that has it; numbers of two families say nothing of each other.
 */
function instrumentFor(program: number | undefined, track: MidiTrack): Instrument {
  const fits = (i: Instrument) => {
    const [low, high] = midiRange(i.range);
    return track.lowest >= low && track.highest <= high && track.voices <= i.polyphony;
  };
  const wanted = program ?? 0;
  const score = (i: Instrument) =>
    (Math.floor(i.program / 8) === Math.floor(wanted / 8)
      ? Math.abs(i.program - wanted)
      : 16 + Math.abs(i.program - wanted) / 16) + (fits(i) ? 0 : 40);
  return INSTRUMENTS.filter((i) => i.id !== "drums" && (i.sound !== "voice" || SUNG.includes(wanted))).reduce(
    (best, i) => (score(i) < score(best) ? i : best),
  );
}

/**
 * What a track is: the lowest single line the bass, the highest one the tune, what sounds several notes at once the
 * chords, the rest other lines.
 */
function rolesOf(tracks: readonly MidiTrack[]): Map<MidiTrack, Part["role"]> {
  const lines = tracks.filter((t) => t.voices <= 2).sort((a, b) => a.lowest - b.lowest);
  const bass = lines.find((t) => t.lowest < BASS_BELOW);
  const tune = lines.filter((t) => t !== bass).sort((a, b) => b.highest - a.highest)[0];
  return new Map(
    tracks.map((t) => {
      const roleOf = () => {
        if (t === bass) return "bass";
        if (t === tune) return "melody";
        if (t.voices > 2) return "chords";
        return "counter";
      };
      return [t, roleOf()];
    }),
  );
}

/** What a song can hold of a file, and what is said of the rest. */
interface Share {
  tracks: MidiTrack[];
  /** Bars of each section, one after another. */
  sections: number[];
  mended: string[];
}

/**
 * As much of a file as a song holds: as many tracks as there can be parts, bars up to the one in which there are too
 * many notes, in sections of at most as many bars as there can be.
 */
function shareOf(tracks: readonly MidiTrack[], bar: Ticks): Share {
  const mended: string[] = [];
  const taken = tracks.slice(0, MOST_TRACKS);
  if (taken.length < tracks.length)
    mended.push(`Of ${tracks.length} tracks the first ${MOST_TRACKS} were taken: a song has ${LIMITS.parts} parts.`);
  const starts = taken.flatMap((t) => t.notes.map((n) => n.start)).sort((a, b) => a - b);
  const last = lastOf(starts);
  const whole = Math.floor(last / bar) + 1;
  const tooMany = starts[LIMITS.notes];
  const fitting = tooMany === undefined ? whole : Math.floor(tooMany / bar);
  const bars = Math.max(1, Math.min(fitting, LIMITS.bars * LIMITS.sections));
  if (bars < whole)
    mended.push(
      `The first ${counted(bars, "bar")} of ${whole} ${bars === 1 ? "was" : "were"} taken: ` +
        (tooMany === undefined ? "a song has no more." : `a song has ${LIMITS.notes} notes at the most.`),
    );
  const sections = Array.from({ length: Math.ceil(bars / LIMITS.bars) }, (_, i) =>
    Math.min(LIMITS.bars, bars - i * LIMITS.bars),
  );
  if (sections.length > 1)
    mended.push(
      `Its ${bars} bars stand in ${sections.length} sections: a section has ${LIMITS.bars} bars at the most.`,
    );
  return { tracks: taken, sections, mended };
}

/** A name as a song can have it. */
function named(text: string, otherwise: string, mended: string[]): string {
  const name = text.trim() || otherwise;
  if (name.length <= LIMITS.title) return name;
  mended.push(`The name “${name.slice(0, 40)} …” was cut to ${LIMITS.title} characters.`);
  return name.slice(0, LIMITS.title).trim();
}

/**
 * Names of parts: those of the tracks, where each has one of its own; several channels of one track, and tracks
 * without a name, are called after what plays them. Those of one name are numbered.
 */
function namesOf(tracks: readonly MidiTrack[], instruments: readonly Instrument[], mended: string[]): string[] {
  const own = tracks.map((t) => t.name.trim());
  const isOwn = (name: string) => name && !/^track \d+$/i.test(name) && own.filter((n) => n === name).length === 1;
  const names = own.map((name, i) => (isOwn(name) ? named(name, "", mended) : nth(instruments, i).title));
  return names.map((name, i) =>
    names.indexOf(name) === names.lastIndexOf(name)
      ? name
      : `${name} ${names.slice(0, i + 1).filter((n) => n === name).length}`,
  );
}

/**
 * A MIDI file as a song: a part for every pitched track, the chords named from all of them, all drums in
 * one; one section, or several where the file has more bars than one can have. What did not fit is told. Errors:
 * `midi.song` where it has no pitched notes, and those of the song.
 */
export function songOfMidi(contents: MidiContents, file: string): Result<Opened> {
  const pitched = contents.tracks.filter((t) => !t.drums && t.notes.length && !drumOfTrack(t));
  const drums = drumsOf(contents);
  const heard = { ...contents, tracks: [...contents.tracks, ...(drums ? [drums] : [])] };
  if (!pitched.length) return fail("midi.song", `${file} has no pitched notes`);
  const meterText = contents.meters[0]?.text ?? "4/4";
  const read = parseMeter(meterText);
  const bar: Ticks = read.ok ? read.value.bar : must(parseMeter("4/4")).bar;
  const { tracks, sections, mended } = shareOf(pitched, bar);
  mended.unshift(...contents.mended);
  if (!read.ok) mended.push(`The meter ${meterText} is not one this application knows: its bars are counted in 4/4.`);
  const home = keyOf(contents, tracks);
  const tempo = Math.min(LIMITS.tempo[1], Math.max(LIMITS.tempo[0], contents.tempos[0]?.bpm ?? 120));
  const title = named(contents.title, file, mended);
  const made = emptySong({ title, key: keyName(home), tempo, meter: read.ok ? meterText : "4/4" }, sections);
  if (!made.ok) return made;
  const song = made.value;
  const chords = song.sections.map((s, i) => chordsOf({ song, contents: heard, tracks, file }, s.id, i * LIMITS.bars));
  const refused = chords.find((c) => !c.ok);
  if (refused && !refused.ok) return refused;
  const roles = rolesOf(tracks);
  const instruments = tracks.map((t) => instrumentFor(t.program, t));
  const names = namesOf(tracks, instruments, mended);
  const edit: Edit = {
    do: "all",
    label: "from a MIDI file",
    edits: [
      ...["melody", "keys", "bass"].map((part): Edit => ({ do: "removePart", part })),
      ...chords.flatMap((c) => (c.ok ? [c.value] : [])),
      ...tracks.map((t, i): Edit => ({
        do: "addPart",
        name: nth(names, i),
        role: sure(roles.get(t)),
        instrument: nth(instruments, i).id,
        notes: Object.fromEntries(
          song.sections.map((s, k) => [s.id, notesOf(t, home, [k * LIMITS.bars * bar, s.bars * bar])]),
        ),
      })),
    ],
  };
  const applied = applyEdit(song, edit);
  return applied.ok ? ok({ song: applied.value.song, mended }) : applied;
}

/** A song of sections of so many bars, one after another. */
function emptySong(settings: NewSong, sections: readonly number[]): Result<Song> {
  const made = newSong({ ...settings, bars: firstOf(sections) });
  if (!made.ok || sections.length === 1) return made;
  const longer = applyEdit(made.value, {
    ...{ do: "all", label: "sections" },
    edits: [
      { do: "setSection", section: "s1", name: "Part 1" },
      ...sections.slice(1).map((bars, i): Edit => ({ do: "addSection", name: `Part ${i + 2}`, bars })),
    ],
  });
  return longer.ok ? ok(longer.value.song) : longer;
}

/** Chords and drums of a section that begins at a bar of the file. */
function chordsOf(
  { song, contents, tracks, file }: { song: Song; contents: MidiContents; tracks: readonly MidiTrack[]; file: string },
  section: string,
  bar: number,
): Result<Edit> {
  const drums = contents.tracks.find((t) => t.id === "drums");
  const bars = sure(sectionOf(song, section)).bars;
  const planned = importMidi(song, section, contents, {
    ...{ chords: tracks.map((t) => t.id), bars: [bar, bar + bars], unit: "half bar" },
    ...given({ drums: drums?.id }),
    ...{ tempo: false, meter: false, file },
  });
  return planned.ok ? ok(planned.value.edit) : planned;
}

/** The key a file states, else the one its notes speak for. */
function keyOf(contents: MidiContents, tracks: readonly MidiTrack[]): Key {
  const stated = contents.keys[0] && parseKey(contents.keys[0].key);
  if (stated?.ok) return stated.value;
  const notes = tracks.flatMap((t) => t.notes);
  const found = findKeys(
    notes.map(({ midi, duration }) => ({ pitch: pitchName(midi, plainName(mod(midi, 12), true)), duration })),
  );
  return must(parseKey(firstOf(found).key));
}

/** Notes of a track that begin in a stretch of the file, where they are written in it; none lasts past its end. */
const notesOf = (track: MidiTrack, key: Key, [from, length]: [Ticks, Ticks]): NewNote[] =>
  track.notes.flatMap((n): NewNote[] => {
    const { start, offset } = notated(n.start);
    const at = start - from;
    if (at < 0 || at >= length) return [];
    return [
      {
        start: at,
        duration: Math.max(1, Math.min(n.duration, length - at)),
        pitch: spellInKey(n.midi, key),
        velocity: Math.min(127, Math.max(1, n.velocity)),
        ...(Math.abs(offset) > OFF ? { offset } : {}),
      },
    ];
  });
