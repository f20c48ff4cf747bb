import { mod } from "../../../../theory/pitch/pitch";
import { listed } from "../../../../theory/words/english";
import { beatAt, beatsText, positionText, type Ticks } from "../../../../theory/time/meter";
import { chordPitchClasses } from "../../../../theory/chord/chord";
import type { Chord } from "../../../../theory/chord/chord";
import { soundingIn, type SoundingIn } from "../../../../hear/slice/soundingIn";
import type { RealizedNote } from "../../../../song/realize";
import { isSung } from "../../../../hear/singer/range";
import { isWritten } from "../../../../song/document";
import type { Edit } from "../../../../song/edits";
import { nth } from "../../../../base/list";
import { endOf } from "../lines";
import type { CheckContext, RawFinding, Rule } from "../../rule";
import { playingIn, type Sounded } from "../room/pairs";

/** A push comes half a beat early at the most; what sounds on for less than a thirty-second is no longer there. */
const HALF = 2;
const ON = 60;
/** So many who wait make it the odd one's push. */
const WAITING = 2;

export const pushed: Rule = {
  id: "pushed",
  title: "One pushes the change while the others wait",
  family: "groove",
  explanation:
    "One player has the next chord half a beat or less before it comes, and holds it, while two or more others come " +
    "on the beat: the push is heard as a wrong entry. Pushed by all, or by nobody, it is a rhythm. A tune may come " +
    "early as it likes, and so may what falls with the kick.",
  source: "common practice of bands",
  severity: { chorale: "off", band: "note", jazz: "off", loop: "note" },
  heard: 0.7,
  find(ctx) {
    const players = playingIn(ctx)
      .filter((p) => p.part.role !== "melody" && !isSung(ctx.song, p.part))
      .map((p): Player => ({ ...p, sounding: soundingIn(p.notes, ctx.meter.bar) }));
    const kicks = new Set(ctx.sliced.real.hits.filter((h) => h.drum === "kick").map((h) => h.start));
    const changes = ctx.sliced.real.chords.flatMap((c, i, all) => {
      const before = all[i - 1]?.chord;
      return before && c.chord && c.symbol !== all[i - 1]?.symbol
        ? [{ at: c.start, symbol: c.symbol, before, next: c.chord }]
        : [];
    });
    return changes.flatMap((change) => atChange(ctx, { players, kicks, chances: changes.length }, change));
  },
};

/** A player whose notes around a change are found at once. */
interface Player extends Sounded {
  sounding: SoundingIn<RealizedNote>;
}

interface Change {
  at: Ticks;
  symbol: string;
  before: Chord;
  next: Chord;
}

function atChange(
  ctx: CheckContext,
  { players, kicks, chances }: { players: readonly Player[]; kicks: ReadonlySet<Ticks>; chances: number },
  { at, symbol, before, next }: Change,
): RawFinding[] {
  const { meter } = ctx;
  const beat = nth(meter.beats, beatAt(meter, mod(at - 1, meter.bar))).duration;
  const [old, fresh] = [chordPitchClasses(before), chordPitchClasses(next)];
  const early = players.flatMap((p) => {
    const around = p.sounding.within(at - 1, at + 1);
    const notes = around.filter((n) => n.start < at && at - n.start <= beat / HALF && endOf(n) >= at + ON);
    const pcs = notes.map((n) => mod(n.midi, 12));
    const ofNext = pcs.every((pc) => fresh.includes(pc)) && pcs.some((pc) => !old.includes(pc));
    return notes.length && ofNext && !around.some((n) => n.start === at) ? [{ ...p, notes }] : [];
  });
  const waiting = players.filter((p) => p.sounding.at(at).some((n) => n.start === at));
  const [one, another] = early;
  if (!one || another || waiting.length < WAITING) return [];
  const start = Math.min(...one.notes.map((n) => n.start));
  if (kicks.has(start)) return [];
  const where = positionText(meter, at);
  const later: Edit = {
    ...{ do: "changeNotes", section: ctx.section.id, part: one.part.id },
    notes: one.notes.map((n) => ({ id: n.id, start: at, duration: endOf(n) - at })),
  };
  const sooner = waiting.map((p): Edit => {
    const moved = p.sounding.at(at).filter((n) => n.start === at);
    const cut = p.sounding.at(start).filter((n) => n.start < start);
    return {
      ...{ do: "changeNotes", section: ctx.section.id, part: p.part.id },
      notes: [
        ...moved.map((n) => ({ id: n.id, start, duration: endOf(n) - start })),
        ...cut.map((n) => ({ id: n.id, duration: start - n.start })),
      ],
    };
  });
  const others = listed(waiting.map((p) => p.part.name));
  return [
    {
      tick: start,
      duration: at - start,
      parts: [one.part.id, ...waiting.map((p) => p.part.id)],
      notes: one.notes.map((n) => n.id),
      message: `${one.part.name} pushes ${symbol} by ${beatsText(meter, at - start)}; ${others} wait for ${where}.`,
      amount: `${beatsText(meter, at - start)} early`,
      chances,
      fixes: [
        ...(isWritten(one.part) ? [{ label: `${one.part.name} waits for ${where}`, edit: later }] : []),
        ...(waiting.every((p) => isWritten(p.part))
          ? [{ label: `All push ${symbol}`, edit: { do: "all" as const, label: "push", edits: sooner } }]
          : []),
      ],
    },
  ];
}
