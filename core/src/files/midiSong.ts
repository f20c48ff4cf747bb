import { given } from "../base/given";
import { firstOf, sure } from "../base/list";
import { fail, must, ok, type Result } from "../base/result";
import { keyName, parseKey, spellInKey, type Key } from "../theory/pitch/key";
import { mod, pitchName, plainName } from "../theory/pitch/pitch";
import { parseMeter, type Ticks } from "../theory/time/meter";
import { INSTRUMENTS, midiRange, type Instrument } from "../theory/instrument/instruments";
import { findKeys } from "../hear/harmony/keys";
import { newSong } from "../song/document";
import { applyEdit, type Edit } from "../song/edits";
import { LIMITS, type NewNote, type Part, type Song } from "../song/schema";
import { importMidi, notated } from "./midiImport";
import type { MidiContents, MidiTrack } from "./midiRead";

/** The lowest pitch of a line that is a bass. */
const BASS_BELOW = 48;
/** A note farther off the grid than this keeps what it was late or early. */
const OFF = 3;

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

/**
 * A MIDI file as a song of one section: a part for every pitched track, the chords named from all of them, the drums of
 * the first drum track. Errors: `midi.song` where it has no pitched notes, and those of the song.
 */
export function songOfMidi(contents: MidiContents, file: string): Result<Song> {
  const tracks = contents.tracks.filter((t) => !t.drums && t.notes.length);
  if (!tracks.length) return fail("midi.song", `${file} has no pitched notes`);
  const meterText = contents.meters[0]?.text ?? "4/4";
  const read = parseMeter(meterText);
  const bar: Ticks = read.ok ? read.value.bar : 1920;
  const bars = Math.min(LIMITS.bars, Math.max(1, Math.ceil(contents.length / bar)));
  const home = keyOf(contents, tracks);
  const tempo = Math.min(LIMITS.tempo[1], Math.max(LIMITS.tempo[0], contents.tempos[0]?.bpm ?? 120));
  const title = contents.title.trim() || file;
  const made = newSong({ title, key: keyName(home), tempo, meter: read.ok ? meterText : "4/4", bars });
  if (!made.ok) return made;
  const drums = contents.tracks.find((t) => t.drums);
  const named = importMidi(made.value, "s1", contents, {
    chords: tracks.map((t) => t.id),
    ...given({ drums: drums?.id }),
    bars: [0, bars],
    unit: "half bar",
    tempo: false,
    meter: false,
    file,
  });
  if (!named.ok) return named;
  const roles = rolesOf(tracks);
  const edit: Edit = {
    do: "all",
    label: "from a MIDI file",
    edits: [
      ...["melody", "keys", "bass"].map((part): Edit => ({ do: "removePart", part })),
      named.value.edit,
      ...tracks.map((t, i): Edit => ({
        do: "addPart",
        name: t.name.trim() || `Track ${i + 1}`,
        role: sure(roles.get(t)),
        instrument: instrumentFor(t.program, t).id,
        notes: { s1: notesOf(t, home, bars * bar) },
      })),
    ],
  };
  const applied = applyEdit(made.value, edit);
  return applied.ok ? ok(applied.value.song) : applied;
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

/** Notes of a track up to an end, where they are written. */
const notesOf = (track: MidiTrack, key: Key, end: Ticks): NewNote[] =>
  track.notes.flatMap((n): NewNote[] => {
    const { start, offset } = notated(n.start);
    if (start >= end) return [];
    return [
      {
        start,
        duration: Math.max(1, n.duration),
        pitch: spellInKey(n.midi, key),
        velocity: Math.min(127, Math.max(1, n.velocity)),
        ...(Math.abs(offset) > OFF ? { offset } : {}),
      },
    ];
  });
