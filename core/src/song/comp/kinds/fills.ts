import { firstOf, lastOf, nth } from "../../../base/list";
import { raised, type CompKind, type CompNote } from "../kind";
import { random } from "../../../base/random";

export const fills: CompKind = {
  id: "fills",
  title: "Fills between the phrases",
  explanation:
    "Silent while the tune moves; in its gaps a short run of chord tones, up or down, that ends before the " +
    "tune comes back. How long a gap must be is yours to say.",
  source: "common practice",
  voices: false,
  fresh: { name: "Fills", instrument: "electricPiano" },
  settings: ["gap", "step", "lift", "human"],
  notes({ chords, playing, melody, meter, length }) {
    const beat = firstOf(meter.beats).duration;
    const least = (playing.gap ?? 1.5) * beat;
    const step = Math.max(60, playing.step ?? 240);
    const lift = playing.lift ?? 0;
    const next = random(playing.seed ?? 1);
    const out: CompNote[] = [];
    const tune = melody().filter((n) => n.start + n.duration > 0);
    const edges = [...tune.map((n) => n.start), length].sort((a, b) => a - b);
    let free = 0;
    for (const edge of edges) {
      if (edge - free >= least && tune.length) {
        // A breath after the tune, and room before it comes back; never longer than eight notes.
        const from = Math.ceil((free + step / 2) / step) * step;
        const count = Math.min(8, Math.floor((edge - step / 2 - from) / step));
        const up = next() < 0.5;
        let index: number | null = null;
        for (let i = 0; i < count; i++) {
          const at = from + i * step;
          const chord = chords.find((c) => c.start <= at && at < c.start + c.duration);
          if (!chord) continue;
          const ladder = [0, 1, 2]
            .flatMap((o) => chord.pitches.map((p) => raised(p, o + lift)))
            .sort((a, b) => a.midi - b.midi);
          if (index === null)
            index = up
              ? Math.floor(chord.pitches.length / 2)
              : Math.min(ladder.length - 1, chord.pitches.length + count - 2);
          else {
            // The nearest rung beyond the last note: the run goes on through a change of chord.
            const last: number = lastOf(out).midi;
            const found: number = up
              ? ladder.findIndex((p) => p.midi > last)
              : ladder.findLastIndex((p) => p.midi < last);
            if (found < 0) break;
            index = found;
          }
          out.push({ chord: chord.id, start: at, duration: step, ...nth(ladder, index), velocity: 62 + i * 3 });
        }
      }
      const sounding = tune.filter((n) => n.start === edge).map((n) => n.start + n.duration);
      free = Math.max(free, ...sounding);
    }
    return out;
  },
};
