import { firstOf, sure } from "../../../../base/list";
import { capital, listed } from "../../../../theory/words/english";
import { positionText } from "../../../../theory/time/meter";
import { drumOf, laneName } from "../../../../song/players";
import { keepsTime } from "../../../../hear/accents/accentMap";
import { isSung } from "../../../../hear/singer/range";
import type { CheckContext, Fix, RawFinding, Rule } from "../../rule";

export const accentsMiss: Rule = {
  id: "accents-miss",
  title: "Accents just miss each other",
  family: "groove",
  explanation:
    "Two players accent places a sixteenth apart, bar after bar: together it sounds like a mistake rather than " +
    "like two rhythms. Both on one place, or clearly apart, they lock. The other drums, and whoever sings, are " +
    "left as they are; a part that strikes with the kick is covered by it.",
  source: "common practice",
  severity: { chorale: "off", band: "note", jazz: "note", loop: "note" },
  find(ctx) {
    const map = ctx.accents();
    if (!map) return [];
    const tune = (player: string) => {
      const part = ctx.song.parts.find((p) => p.id === player);
      return part !== undefined && (part.role === "melody" || isSung(ctx.song, part));
    };
    // A drummer's own limbs are meant as they are, and what falls with the kick is covered by it.
    const kick = new Set(map.rows.find((r) => drumOf(r.id) === "kick")?.accents ?? []);
    const plays = (player: string) =>
      drumOf(player) ? drumOf(player) === "kick" : !keepsTime(player) && !tune(player);
    const uncovered = (player: string, step: number) => drumOf(player) !== null || !kick.has(step);
    const fights = map.pairs
      .filter((p) => p.kind === "fight" && plays(p.a) && plays(p.b))
      .map((p) => ({ ...p, nearMisses: p.nearMisses.filter(([x, y]) => uncovered(p.a, x) && uncovered(p.b, y)) }))
      .filter((p) => p.nearMisses.length > 0);
    const fighting = new Set(fights.flatMap((p) => [p.a, p.b]));
    const moved = (ctx.agreement()?.players ?? []).filter((p) => fighting.has(p.id));
    // Who would have to come to the others; where nobody can say, all that fight.
    const late = moved.length ? moved.map((p) => p.id) : [...fighting];
    if (!fights.length) return [];
    const drums = ctx.song.parts.find((p) => p.role === "drums")?.id;
    const steps = fights.filter((p) => late.includes(p.a) || late.includes(p.b)).flatMap((p) => p.nearMisses.flat());
    const tick = Math.min(...(steps.length ? steps : firstOf(fights).nearMisses.flat())) * map.step;
    return [
      {
        tick,
        duration: ctx.section.bars * ctx.meter.bar - tick,
        parts: [...new Set(late.flatMap((p) => (drumOf(p) ? (drums ?? []) : p)))],
        notes: [],
        message:
          `${capital(listed(late.map((p) => nameOf(ctx, p))))} ` +
          `${late.length > 1 ? "have accents" : "has accents"} a sixteenth beside those of the others, bar after ` +
          `bar, first at ${positionText(ctx.meter, tick)}.`,
        amount: `${fights.length} ${fights.length === 1 ? "pair" : "pairs"} of players`,
        fixes: moved.flatMap((p): Fix[] =>
          p.edit ? [{ label: `${capital(nameOf(ctx, p.id))} comes to the others`, edit: p.edit }] : [],
        ),
      },
    ] satisfies RawFinding[];
  },
};

const nameOf = ({ song, section }: CheckContext, player: string): string => {
  const drum = drumOf(player);
  return drum ? `the ${laneName(section, drum)}` : sure(song.parts.find((p) => p.id === player)).name;
};
