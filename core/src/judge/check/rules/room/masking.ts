import { percent } from "../../../../theory/words/english";
import { isSung } from "../../../../hear/singer/range";
import { octaveShift } from "../../../../arrange/room/room";
import type { RawFinding, Rule } from "../../rule";
import { attackTimes, meanLevel, shareOf } from "../../../../arrange/room/share";
import { doubles, playingIn, type Sounded } from "./pairs";

/**
 * Shares of time in one register and of attacks in common from which two parts are one mass; decibels apart at which
 * one is only a shadow (common practice).
 */
const REGISTER = 0.6;
const RHYTHM = 0.75;
const SHADOW = 9;
/** Semitones around a note that belong to its octave. */
const NEAR = 6;
const FEWEST = 8;
const DOUBLE = 0.95;

export const masking: Rule = {
  id: "masking",
  title: "Two parts in one register and rhythm",
  family: "room",
  explanation:
    "Two parts that play chords strike together in the same octave, about equally loud: they are heard as one " +
    "thick instrument, and each hides the other. Another octave, another rhythm or a rest makes room. A double " +
    "that plays the same notes, and a line that doubles tones of the chords, are colors of their own and are " +
    "not told.",
  source: "common practice of arranging",
  severity: { chorale: "off", band: "note", jazz: "warning", loop: "warning" },
  heard: 0.6,
  find(ctx) {
    const { song, section, meter } = ctx;
    const parts = playingIn(ctx).filter(
      (p) => p.part.role !== "bass" && !isSung(song, p.part) && p.notes.length >= FEWEST,
    );
    return parts.flatMap((a, i) =>
      parts.slice(i + 1).flatMap((b): RawFinding[] => {
        if (a.part.role !== "chords" && b.part.role !== "chords") return [];
        const [x, y] = [attackTimes(a.notes), attackTimes(b.notes)];
        const together = [...x].filter((t) => y.has(t)).length / Math.min(x.size, y.size);
        if (together < RHYTHM || Math.min(x.size, y.size) < Math.max(x.size, y.size) / 2) return [];
        if (Math.abs(meanLevel(a) - meanLevel(b)) > SHADOW) return [];
        // A line that doubles the chords' own tones is a color; two that play chords are two players of one thing.
        let line: Sounded | null;
        if (a.part.role !== "chords") line = a;
        else if (b.part.role !== "chords") line = b;
        else line = null;
        // The same notes twice are a double: one thick instrument on purpose.
        const same = shareOf(a.notes, b.notes, meter.bar, (n, m) => n.midi === m.midi && n.start === m.start);
        if (same > DOUBLE) return [];
        if (line && doubles(line, line === a ? b : a, meter.bar)) return [];
        const near = (p: Sounded, q: Sounded) =>
          shareOf(p.notes, q.notes, meter.bar, (n, m) => Math.abs(n.midi - m.midi) <= NEAR);
        const register = Math.min(near(a, b), near(b, a));
        if (register < REGISTER) return [];
        const first = [...x].filter((t) => y.has(t)).reduce((m, t) => Math.min(m, t), Infinity);
        return [
          {
            tick: first,
            duration: section.bars * meter.bar - Math.max(0, first),
            parts: [a.part.id, b.part.id],
            notes: [],
            message:
              `${a.part.name} and ${b.part.name} share ${percent(together)} of their attacks and lie in one ` +
              `octave for ${percent(register)} of their time.`,
            amount: `${percent(register)} of the time`,
            fixes: [b, a].flatMap((p) =>
              ([-1, 1] as const).flatMap((way) => {
                const edit = octaveShift(song, section, p.part, { during: p.notes, way });
                return edit
                  ? [{ label: `${p.part.name.split(",")[0]} an octave ${way < 0 ? "lower" : "higher"}`, edit }]
                  : [];
              }),
            ),
          },
        ];
      }),
    );
  },
};
