import { firstOf } from "../../../../base/list";
import { percent } from "../../../../theory/words/english";
import { mod } from "../../../../theory/pitch/pitch";
import { positionText } from "../../../../theory/time/meter";
import { isSung } from "../../../../hear/singer/range";
import { octaveShift } from "../../../../arrange/room/room";
import { velocityOf, strengthOf } from "../../../../theory/instrument/loudness";
import { isWritten } from "../../../../song/document";
import { soundingIn } from "../../../../hear/slice/soundingIn";
import type { Fix, RawFinding, Rule } from "../../rule";
import { meanLevel, shareOf } from "../../../../arrange/room/share";
import { playingIn } from "./pairs";

/**
 * Share of the tune's time for which something may lie over it, and the decibels by which it must be softer to be no
 * matter (common practice).
 */
const SHARE = 0.3;
/** What plays chords is heard as a background until it lies over most of the tune, as loud as the tune itself. */
const CHORDS = 0.6;
const SOFTER = 4;
const OCTAVE = 12;

export const covered: Rule = {
  id: "covered",
  title: "The tune is covered",
  family: "room",
  explanation:
    "Something as loud as the tune lies above it and within an octave for much of its time: the ear follows " +
    "what is on top. Lower or softer it accompanies again. Sung harmonies, and what doubles the tune an octave " +
    "higher, are not meant.",
  source: "Huron 2001 (the outer voice is heard best); common practice for the limits",
  severity: { chorale: "off", band: "warning", jazz: "note", loop: "note" },
  find(ctx) {
    const { song, section, meter } = ctx;
    const all = playingIn(ctx);
    const lead = all.find((p) => p.part.role === "melody") ?? all.find((p) => p.part.role === "vocal");
    if (!lead) return [];
    const tune = soundingIn(lead.notes, meter.bar);
    return all
      .filter((p) => p !== lead && p.part.role !== "bass" && !isSung(song, p.part))
      .flatMap((p): RawFinding[] => {
        const over = meanLevel(p) - meanLevel(lead);
        if (over < (p.part.role === "chords" ? 0 : -SOFTER)) return [];
        // One that doubles the tune in octaves adds to it.
        const above = (n: { midi: number }, m: { midi: number }) => m.midi > n.midi && m.midi - n.midi < OCTAVE;
        const share = shareOf(lead.notes, p.notes, meter.bar, above);
        const doubled = shareOf(lead.notes, p.notes, meter.bar, (n, m) => mod(n.midi - m.midi, OCTAVE) === 0);
        if (share < (p.part.role === "chords" ? CHORDS : SHARE) || (doubled > 0.8 && p.part.role !== "chords"))
          return [];
        const during = p.notes.filter((m) => tune.within(m.start, m.start + m.duration).some((n) => above(n, m)));
        const whole = p.notes.filter((m) => tune.within(m.start, m.start + m.duration).length > 0);
        const lower = octaveShift(song, section, p.part, { during: whole, way: -1 });
        const factor = strengthOf(100) * 10 ** (-(over + SOFTER + 2) / 20);
        const softer: Fix[] = isWritten(p.part)
          ? [
              {
                label: "Softer under the tune",
                edit: {
                  do: "changeNotes",
                  section: section.id,
                  part: p.part.id,
                  notes: whole.map((n) => ({
                    id: n.id,
                    velocity: Math.max(1, Math.round(velocityOf((strengthOf(n.velocity) * factor) / strengthOf(100)))),
                  })),
                },
              },
            ]
          : [
              {
                label: "Softer throughout",
                edit: {
                  do: "setPart",
                  part: p.part.id,
                  level: Math.max(-60, (p.part.level ?? 0) - Math.ceil(over + SOFTER + 1)),
                },
              },
            ];
        return [
          {
            tick: firstOf(during).start,
            duration: firstOf(during).duration,
            parts: [lead.part.id, p.part.id],
            notes: during.map((n) => n.id),
            message:
              `${p.part.name} lies above ${lead.part.name} for ${percent(share)} of the tune from ` +
              `${positionText(meter, firstOf(during).start)}, ` +
              `${over > 0 ? `${over.toFixed(0)} dB louder` : "about as loud"}.`,
            amount: `${percent(share)} of the tune`,
            fixes: [
              ...(lower ? [{ label: `${p.part.name.split(",")[0]} an octave lower under the tune`, edit: lower }] : []),
              ...softer,
            ],
          },
        ];
      });
  },
};
