import { fail, ok, type Result } from "../result";
import { nameInKey } from "../pitch/key";
import { mod, pitchMidi, pitchName, transposeNote, type Midi } from "../pitch/pitch";
import { beatsText, positionText, type Ticks } from "../time/meter";
import { bassPc, chordToneName, toneRole } from "../chord/chord";
import { applyEdit } from "../song/edits";
import type { Note, Reason, Song } from "../song/schema";
import { bassContext, chordAt, type BassContext } from "./context";
import { choosePitches, otherPitches, pitchSlots, type PitchSlot } from "./pitches";
import { random } from "../random";
import { reportBass, type BassReport } from "./report";
import type { BassStyle, Slot } from "./style";
import { BASS_STYLES } from "./styles";

export interface BassRequest {
  section: string;
  part: string;
  style?: string;
  seed?: number;
  settings?: { glides?: boolean };
}

export interface Conflict {
  code: "noChord" | "pin" | "held" | "pitchClasses" | "range" | "noKick";
  message: string;
  tick?: Ticks;
}

export interface BassLine {
  /** The whole part for the section: pinned notes kept, everything else new. Ids of new notes are given when the line is taken. */
  notes: (Omit<Note, "id"> & { id?: string })[];
  reasons: (Reason | undefined)[];
  report: BassReport;
  conflicts: Conflict[];
  seed: number;
  style: string;
  /** What sets this candidate apart, in words. */
  title: string;
}

/**
 * Writes up to four bass lines for a section in one style, best first: the same rhythm with other pitches, then other rhythms from the
 * seed. Where pins, chords, N.C. and targets cannot all be met, the line names the conflict.
 */
export function tryWriteBass(song: Song, request: BassRequest): Result<BassLine[]> {
  const style = BASS_STYLES.find((s) => s.id === (request.style ?? "kick-locked"));
  if (!style)
    return fail("bass.style", `No bass style is called "${request.style}"`, {
      hint: `Styles: ${BASS_STYLES.map((s) => s.id).join(", ")}.`,
    });
  const context = bassContext(song, request.section, request.part);
  if (!context.ok) return context;
  const ctx = context.value;
  if (!ctx.chords.some((c) => c.chord))
    return fail("bass.chords", `${ctx.section.name} has no chords yet`, {
      hint: "Type a chord line first; the bass is written against it.",
    });
  const seed = request.seed ?? 1;
  const glides = request.settings?.glides ?? style.glides;
  const lines: BassLine[] = [];
  const seen = new Set<string>();
  const add = (line: BassLine | null) => {
    const id = line && line.notes.map((n) => `${n.start}:${n.pitch}:${n.duration}`).join();
    if (line && !seen.has(id!)) {
      seen.add(id!);
      lines.push(line);
    }
  };
  for (let turn = 0; turn < 8 && lines.length < 4; turn++) {
    const slots = pitchSlots(ctx, style, withPins(ctx, style.rhythm(ctx, random(seed * 97 + turn))));
    if (!slots.length) continue;
    const chosen = choosePitches(ctx, style, slots);
    if (!chosen) continue;
    add(finish(ctx, style, slots, chosen.path.picks, chosen.over, glides, seed, turn === 0 ? "Closest to the style" : "Another rhythm"));
    if (turn > 0) continue;
    const other = otherPitches(style, slots, 6).find(
      (path) => path.picks.filter((p, i) => p !== chosen.path.picks[i]).length >= slots.length / 4,
    );
    if (other)
      add(finish(ctx, style, slots, other.picks, overFigures(ctx, style, slots, other.picks), glides, seed, "Same rhythm, other notes"));
  }
  return lines.length
    ? ok(lines)
    : fail("bass.none", "No line fits the range and the pinned notes", { hint: "Widen the range or unpin a note." });
}

/** The lines alone, best first; empty where `tryWriteBass` would name an error. */
export function writeBass(song: Song, request: BassRequest): BassLine[] {
  const result = tryWriteBass(song, request);
  return result.ok ? result.value : [];
}

/** Pinned notes take their place; slots that they cover give way, slots before them end where they begin. */
function withPins(ctx: BassContext, slots: Slot[]): (Slot & { pin?: Note; pinMidi?: Midi })[] {
  const pins = ctx.pinned.map((pin) => ({
    start: pin.start,
    duration: pin.duration,
    use: "anchor" as const,
    pin,
    pinMidi: pitchMidi(pin.pitch),
  }));
  const free = slots
    .filter((s) => !pins.some((p) => s.start >= p.start && s.start < p.start + p.duration))
    .map((s) => {
      const next = pins.find((p) => p.start > s.start);
      return next ? { ...s, duration: Math.min(s.duration, next.start - s.start) } : s;
    });
  return [...free, ...pins].sort((a, b) => a.start - b.start);
}

function overFigures(ctx: BassContext, style: BassStyle, slots: PitchSlot[], picks: number[]): { from: Ticks; to: Ticks; count: number }[] {
  const chosen = choosePitches(
    ctx,
    style,
    slots.map((s, i) => ({ ...s, candidates: [s.candidates[picks[i]!]!] })),
  );
  return chosen?.over ?? [];
}

function finish(
  ctx: BassContext,
  style: BassStyle,
  slots: PitchSlot[],
  picks: number[],
  over: { from: Ticks; to: Ticks; count: number }[],
  glides: boolean,
  seed: number,
  title: string,
): BassLine | null {
  const midis = slots.map((s, i) => s.candidates[picks[i]!]!.midi);
  const notes = slots.map((slot, i): Omit<Note, "id"> & { id?: string } => {
    if (slot.pin) return slot.pin;
    const kick = ctx.kicks.find((k) => k.start === slot.start);
    const velocity = kick ? Math.round(66 + kick.velocity * 0.28) : slot.use === "approach" ? 76 : 84;
    return {
      start: slot.start,
      duration: slot.duration,
      pitch: spell(ctx, slot, midis[i]!, { slot: slots[(i + 1) % slots.length]!, midi: midis[(i + 1) % slots.length]! }),
      velocity,
      reason: reasonFor(ctx, slots, midis, i),
    };
  });
  if (glides) addGlides(slots, midis, notes);
  const conflicts = findConflicts(ctx, style, slots, midis, over);
  const applied = applyEdit(ctx.song, { do: "setNotes", section: ctx.section.id, part: ctx.part.id, notes });
  if (!applied.ok) return null;
  const report = reportBass(applied.value.song, { section: ctx.section.id, part: ctx.part.id, targets: style.targets });
  return report.ok ? { notes, reasons: notes.map((n) => n.reason), report: report.value, conflicts, seed, style: style.id, title } : null;
}

/** Chord tones as the chord spells them, approach notes with the letter beside their target, other tones as the key does. */
function spell(ctx: BassContext, slot: PitchSlot, midi: Midi, next?: { slot: PitchSlot; midi: Midi }): string {
  const pc = mod(midi, 12);
  const own = slot.chord?.chord && chordToneName(slot.chord.chord, pc);
  if (own) return pitchName(midi, own);
  const distance = next ? midi - next.midi : 0;
  const beside =
    next && distance && Math.abs(distance) <= 2
      ? transposeNote(spell(ctx, next.slot, next.midi).replace(/-?\d+$/, ""), Math.sign(distance), distance)
      : null;
  if (beside && beside.length <= 2) return pitchName(midi, beside);
  return pitchName(midi, nameInKey(pc, ctx.key));
}

function reasonFor(ctx: BassContext, slots: PitchSlot[], midis: Midi[], i: number): Reason {
  const slot = slots[i]!;
  const chord = slot.chord!.chord!;
  const pc = mod(midis[i]!, 12);
  const pitch = spell(ctx, slot, midis[i]!).replace(/-?\d+$/, "");
  const { role, inChord } = toneRole(chord, pc);
  const symbol = slot.chord!.symbol;
  const nextAt = (i + 1) % slots.length;
  if (!inChord) {
    const target = spell(ctx, slots[nextAt]!, midis[nextAt]!).replace(/-?\d+$/, "");
    const up = midis[nextAt]! > midis[i]!;
    return {
      id: up ? "approachBelow" : "approachAbove",
      params: { target, interval: Math.abs(midis[nextAt]! - midis[i]!) === 1 ? "semitone" : "whole tone" },
    };
  }
  const kick = ctx.kicks.find((k) => k.start === slot.start);
  if (pc === bassPc(chord)) {
    const first = slots.findIndex((s) => s.chord === slot.chord && mod(midis[slots.indexOf(s)]!, 12) === pc);
    if (first < i && midis[i]! - midis[first]! === 12 && slot.use !== "anchor") return { id: "octave" };
    const kind = chord.bass ? "bass" : "root";
    const params = { pitch, chord: symbol };
    return kick
      ? { id: kick.main ? `${kind}OnKick` : `${kind}WithKick`, params }
      : slot.use === "turn"
        ? { id: "turn", params: { role: "Root", chord: symbol } }
        : { id: slot.start === slot.chord!.start ? `${kind}OnBeat` : `${kind}Hook`, params };
  }
  if (slot.use === "turn") return { id: "turn", params: { role, chord: symbol } };
  if (slot.use === "approach" && role !== "5") return { id: "fill", params: { role, chord: symbol } };
  if (role === "5") {
    const ahead = slots[nextAt]!;
    if (ahead.chord?.chord && ahead.chord !== slot.chord && mod(pc - bassPc(ahead.chord.chord), 12) === 7)
      return { id: "approachFifth", params: { target: ahead.chord.chord.root } };
    return { id: "fifth", params: { chord: symbol } };
  }
  if (role === "3" || role === "b3") return { id: "third", params: { chord: symbol } };
  if (role === "7" || role === "b7") return { id: "seventh", params: { chord: symbol } };
  return { id: "chordTone", params: { role, chord: symbol } };
}

/** At most one glide in two bars: from a note that lasts at least a beat into the next note, when that follows without a gap and a third to an octave away. */
function addGlides(slots: PitchSlot[], midis: Midi[], notes: (Omit<Note, "id"> & { id?: string })[]): void {
  let last = -Infinity;
  for (let i = 0; i + 1 < slots.length; i++) {
    const distance = Math.abs(midis[i + 1]! - midis[i]!);
    const joined = slots[i]!.start + slots[i]!.duration === slots[i + 1]!.start;
    if (slots[i]!.pin || !joined || distance < 3 || distance > 12 || slots[i]!.duration < 480 || slots[i]!.start - last < 3840) continue;
    notes[i] = { ...notes[i]!, glideTo: notes[i + 1]!.pitch };
    last = slots[i]!.start;
  }
}

function findConflicts(
  ctx: BassContext,
  style: BassStyle,
  slots: PitchSlot[],
  midis: Midi[],
  over: { from: Ticks; to: Ticks; count: number }[],
): Conflict[] {
  const conflicts: Conflict[] = [];
  const where = (tick: Ticks) => positionText(ctx.meter, tick);
  if (!ctx.kicks.length) conflicts.push({ code: "noKick", message: "No kick is painted: the line follows the chords and beats alone." });
  for (const kick of ctx.kicks.filter((k) => k.main)) {
    const chord = chordAt(ctx, kick.start);
    if (slots.some((s) => s.start === kick.start)) continue;
    const pin = ctx.pinned.find((p) => p.start < kick.start && p.start + p.duration > kick.start);
    if (!chord?.chord)
      conflicts.push({
        code: "noChord",
        tick: kick.start,
        message: `The main accent at ${where(kick.start)} stands where there is no chord: the bass is silent there.`,
      });
    else if (pin)
      conflicts.push({
        code: "held",
        tick: kick.start,
        message: `The pinned ${pin.pitch} is held through the main accent at ${where(kick.start)}, so nothing can sound anew there.`,
      });
  }
  slots.forEach((slot, i) => {
    if (
      slot.pin &&
      slot.chord?.chord &&
      !toneRole(slot.chord.chord, mod(midis[i]!, 12)).inChord &&
      slot.duration > style.targets.longestOutside * ctx.meter.beats[0]!.duration
    )
      conflicts.push({
        code: "pin",
        tick: slot.start,
        message: `The pinned ${slot.pin.pitch} at ${where(slot.start)} lies outside ${slot.chord.symbol} for ${beatsText(ctx.meter, slot.duration)}.`,
      });
    const written = slot.chord?.chord && bassPc(slot.chord.chord);
    if (!slot.pin && slot.use === "anchor" && typeof written === "number" && mod(midis[i]!, 12) !== written) {
      const reachable = slot.candidates.some((c) => mod(c.midi, 12) === written);
      if (!reachable)
        conflicts.push({
          code: "range",
          tick: slot.start,
          message: `The bass note of ${slot.chord!.symbol} at ${where(slot.start)} is not in the part's range.`,
        });
    }
  });
  for (const figure of over) {
    const symbols = [
      ...new Set(ctx.chords.filter((c) => c.chord && c.start < figure.to && c.start + c.duration > figure.from).map((c) => c.symbol)),
    ];
    conflicts.push({
      code: "pitchClasses",
      tick: figure.from,
      message: `From ${where(figure.from)} the figure needs ${figure.count} different pitches for ${symbols.join(", ")}; the style aims at ${style.targets.pitchClasses}.`,
    });
  }
  return conflicts;
}
