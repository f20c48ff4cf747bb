import { firstOf, nth } from "../../../base/list";
import { fail, ok, type Result } from "../../../base/result";
import { nameInKey, type Key } from "../../../theory/pitch/key";
import { mod, pitchMidi, pitchName, type Midi, type PitchName } from "../../../theory/pitch/pitch";
import { holdShape, SHAPE_LIMITS, shapeOf, type Neck } from "../../../theory/instrument/fretboard";
import { twoHands } from "../../../theory/instrument/hands";
import { instrumentOf, midiRange, type Instrument } from "../../../theory/instrument/instruments";
import { counted, inSentence } from "../../../theory/words/english";
import { sectionKey } from "../../../song/document";
import { playingOf } from "../../../song/playing";
import type { HeldShape, Part, Section, Song } from "../../../song/schema";
import { neckIn } from "../strung";

/** Who is to play a chord, and where. */
export interface Player {
  song: Song;
  section: Section;
  part: Part;
}

/** A hand on a neck is taken at its word: it may lie as high as the neck goes, with any strings silent. */
const anyPlace = (neck: Neck) => ({ ...SHAPE_LIMITS, highest: neck.frets, muted: neck.strings.length });
const ANY_HAND = { span: 99, reach: 9999, fingers: 99 };

/**
 * Whether one player can play these notes at once; on a neck, the shape in which they are held: as it was (`before`),
 * with what is new on the same string where it can lie there. Errors say why not: `voice.twice`, `voice.range`,
 * `voice.string`, `voice.hand`, `voice.many`.
 */
export function playable(
  { song, section, part }: Player,
  pitches: readonly PitchName[],
  before?: HeldShape,
): Result<{ shape?: HeldShape }> {
  const instrument = instrumentOf(part.instrument, song);
  const midis = pitches.map(pitchMidi).sort((a, b) => a - b);
  const named = (m: Midi) => pitches.find((p) => pitchMidi(p) === m) ?? nameOf(m, sectionKey(song, section));
  const neck = neckIn(song, section, part);
  const twice = neck ? undefined : midis.find((m, i) => i > 0 && nth(midis, i - 1) === m);
  if (twice !== undefined) return fail("voice.twice", `${named(twice)} is in the chord already`);
  const away = outsideOf(instrument, midis);
  if (away !== null)
    return fail("voice.range", `${named(away)} is outside the range of the ${inSentence(instrument.title)}`);
  if (neck) return onNeck(neck, midis, { before, named });
  return inHands({ song, section, part }, instrument, midis);
}

const nameOf = (midi: Midi, key: Key): PitchName => pitchName(midi, nameInKey(mod(midi, 12), key));

function outsideOf({ range, held }: Instrument, midis: readonly Midi[]): Midi | null {
  if (held.by === "frets") return null;
  const [low, high] = midiRange(range);
  return midis.find((m) => m < low || m > high) ?? null;
}

function inHands(
  { part, section }: Player,
  { held, polyphony, title }: Instrument,
  midis: readonly Midi[],
): Result<object> {
  if (midis.length > polyphony)
    return fail("voice.many", `The ${inSentence(title)} plays ${counted(polyphony, "note")} at a time`);
  if (held.by !== "hands") return ok({});
  const { hands = 2, span = held.span } = playingOf(part, "voicing", { section });
  const reach = Math.max(span, held.span);
  if (twoHands(midis, reach, hands)) return ok({});
  return fail("voice.hand", hands === 1 ? "One hand does not reach that" : "Two hands do not reach that", {
    hint: `A hand spans ${reach} semitones with five fingers; the part says how many hands and how wide.`,
  });
}

type Named = (midi: Midi) => PitchName;

function onNeck(
  neck: Neck,
  midis: readonly Midi[],
  { before, named }: { before: HeldShape | undefined; named: Named },
): Result<{ shape: HeldShape }> {
  const open = neck.strings.map((m) => m + neck.capo);
  const off = midis.find((m) => !open.some((o) => m >= o && m <= o + neck.frets - neck.capo));
  if (off !== undefined)
    return fail(
      "voice.string",
      off < Math.min(...open)
        ? `${named(off)} lies below the lowest string, ${named(Math.min(...open))}`
        : `${named(off)} lies above the last fret`,
    );
  const stays = before && sameStrings(neck, midis, before);
  if (stays) return ok({ shape: stays });
  const found = shapeOf(neck, midis) ?? shapeOf(neck, midis, anyPlace(neck));
  if (found) return ok({ shape: { frets: found.frets, capo: neck.capo } });
  if (shapeOf(neck, midis, { ...anyPlace(neck), ...ANY_HAND }))
    return fail("voice.hand", `No hand reaches ${midis.map(named).join(" ")} at once on this neck`, {
      hint: "Leave a note out, or move one of them by an octave.",
    });
  return fail("voice.string", `There are not enough strings for ${midis.map(named).join(" ")}`, {
    hint: "Two of these notes lie on one string: each needs its own.",
  });
}

/** The shape as it was, where all notes but one lie as they lay and the new one lies on a string that is free. */
function sameStrings(neck: Neck, midis: readonly Midi[], { frets, capo, fingers: _ }: HeldShape): HeldShape | null {
  if (capo !== neck.capo || frets.length !== neck.strings.length) return null;
  const left = [...midis];
  const kept = frets.map((f, s) => {
    const at = f === null ? -1 : left.indexOf(nth(neck.strings, s) + capo + f);
    if (at >= 0) left.splice(at, 1);
    return at < 0 ? null : f;
  });
  if (!left.length) return { frets: kept, capo };
  if (left.length > 1) return null;
  const fretOn = (s: number) => firstOf(left) - nth(neck.strings, s) - capo;
  // The string it was moved on comes first, then those that were silent.
  const strings = frets
    .map((_, s) => s)
    .filter((s) => kept[s] === null && fretOn(s) >= 0 && fretOn(s) <= neck.frets - capo)
    .sort((a, b) => Number(frets[a] === null) - Number(frets[b] === null) || fretOn(a) - fretOn(b));
  const shapes = strings.map((s) => kept.map((f, k) => (k === s ? fretOn(s) : f)));
  const held = shapes.find((shape) => isHeld(neck, shape));
  return held ? { frets: held, capo } : null;
}

function isHeld(neck: Neck, frets: readonly (number | null)[]): boolean {
  const held = holdShape(neck, frets);
  return (
    held !== null &&
    held.fingers <= SHAPE_LIMITS.fingers &&
    held.span <= SHAPE_LIMITS.span &&
    held.reach <= SHAPE_LIMITS.reach
  );
}
