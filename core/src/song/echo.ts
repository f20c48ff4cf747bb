import { noteOf, pitchMidi, pitchName, type Midi, type PitchName } from "../theory/pitch/pitch";
import { EIGHTH, SIXTEENTH, type Ticks } from "../theory/time/meter";
import { swung } from "../theory/time/swing";
import { strengthOf, velocityOf } from "../theory/instrument/loudness";
import { sectionMeter, sectionSwing } from "./document";
import { linkedNotes } from "./linked";
import { playingOf } from "./playing";
import { spellAt } from "./spell";
import type { Note, Part, Pass, PlayingOf, Section, Song } from "./schema";

export type EchoSettings = { [K in keyof PlayingOf<"echo">]-?: Exclude<PlayingOf<"echo">[K], undefined> };

/** A dotted eighth, three repeats, half of the amplitude each time: 450 ms at 100 beats a minute (common practice). */
export const USUAL_ECHO: EchoSettings = { delay: EIGHTH + SIXTEENTH, repeats: 3, decay: 0.5, shift: 0 };

/** How a part repeats another one at a place. */
export const echoSettings = (part: Part, section?: Section, pass?: Pass): EchoSettings => ({
  ...USUAL_ECHO,
  ...(playingOf(part, "echo", { section, pass }) as Partial<EchoSettings>),
});

/**
 * The velocity of a repeat: what is left of the amplitude, through the curve by which instruments are struck. 0 is
 * silence.
 */
export const fadedVelocity = (velocity: number, share: number): number =>
  Math.round(velocityOf(strengthOf(velocity) * share));

/**
 * What an echo plays in a section: each note of its source again after the delay, softer each time, on its notated
 * place; it sounds exactly the delay after its source, whatever the swing. Repeats past the end of the section are not
 * played; of two that meet on one pitch the louder one is.
 */
export function echoNotes(song: Song, section: Section, part: Part, pass?: Pass): Note[] {
  const source = song.parts.find((p) => p.id === part.echoes);
  // A source that is silent in a pass leaves nothing to repeat.
  if (!source || pass?.muted?.includes(source.id)) return [];
  const { delay, repeats, decay, shift } = echoSettings(part, section, pass);
  const meter = sectionMeter(song, section);
  const swing = sectionSwing(song, section);
  const end = section.bars * meter.bar;
  const played = (tick: Ticks): number => {
    const bar = Math.floor(tick / meter.bar) * meter.bar;
    return bar + swung(tick - bar, meter.bar, swing);
  };
  const named = (note: Note, midi: Midi, start: Ticks): PitchName =>
    shift % 12 === 0 ? pitchName(midi, noteOf(note.pitch)) : spellAt(song, section, Math.max(0, start), midi);
  const out = new Map<string, Note>();
  for (const note of soundingOf(song, section, source, pass)) {
    const midi = pitchMidi(note.pitch) + shift;
    if (midi < 0 || midi > 127) continue;
    for (let r = 1; r <= repeats; r++) {
      const start = note.start + r * delay;
      const velocity = fadedVelocity(note.velocity, decay ** r);
      if (start >= end || velocity < 1) break;
      const id = `${start}:${midi}`;
      const known = out.get(id);
      if (known && known.velocity >= velocity) continue;
      const offset = Math.round(played(note.start) + r * delay - played(start)) + (note.offset ?? 0);
      out.set(id, {
        id: `${part.id}.${note.id}.${r}`,
        start,
        duration: note.duration,
        pitch: named(note, midi, start),
        velocity,
        ...(offset ? { offset: Math.max(-480, Math.min(480, offset)) } : {}),
      });
    }
  }
  return [...out.values()].sort((a, b) => a.start - b.start || pitchMidi(a.pitch) - pitchMidi(b.pitch));
}

/** What a part plays in a section: by its link, or its own notes. */
const soundingOf = (song: Song, section: Section, part: Part, pass: Pass | undefined): readonly Note[] =>
  part.link ? linkedNotes(song, section, part, pass).map((n) => n.note) : (section.notes[part.id] ?? []);
