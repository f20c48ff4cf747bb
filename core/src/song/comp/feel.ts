import { sure } from "../../base/list";
import { random } from "../../base/random";
import type { CompNote } from "./kind";
import type { CompPlaying } from "./kinds";

/**
 * Hands on the notes: a strum (each note of a chord later than the one before by `strum` ticks, louder or softer by
 * `slope`), and loose timing and touch (`human`, in ticks, from `seed`). Both only move what is played, not what is
 * notated.
 */
export function withFeel(notes: readonly CompNote[], playing: Readonly<CompPlaying>): CompNote[] {
  const strum = playing.strum ?? 0;
  const slope = playing.slope ?? 0;
  const human = playing.human ?? 0;
  if (!strum && !slope && !human) return [...notes];
  const way = playing.strumWay ?? "up";
  const next = random(playing.seed ?? 1);
  const groups = new Map<number, CompNote[]>();
  for (const note of notes) groups.set(note.start, [...(groups.get(note.start) ?? []), note]);
  const out: CompNote[] = [];
  [...groups.keys()]
    .sort((a, b) => a - b)
    .forEach((start, k) => {
      const group = sure(groups.get(start)).sort((a, b) => a.midi - b.midi);
      const fromTop = way === "down" || (way === "alternate" && k % 2 === 1);
      // One hand plays the whole chord: it is late or early together, and each finger a little by itself.
      const together = (next() + next() - 1) * human;
      group.forEach((note, i) => {
        const order = fromTop ? group.length - 1 - i : i;
        const own = (next() - 0.5) * human * 0.5;
        const offset = Math.max(-480, Math.min(480, Math.round(order * strum + together + own)));
        const velocity = note.velocity + order * slope + (human ? Math.round((next() - 0.5) * Math.min(24, human)) : 0);
        out.push({
          ...note,
          velocity: Math.max(1, Math.min(127, Math.round(velocity))),
          ...(offset ? { offset } : {}),
        });
      });
    });
  return out;
}
