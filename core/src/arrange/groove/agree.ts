import { firstOf, lastOf, nth, sure } from "../../base/list";
import { fail, ok, type Result } from "../../base/result";
import { metricalLevel, beatText, type Meter, type Ticks } from "../../theory/time/meter";
import { mod } from "../../theory/pitch/pitch";
import { STEP, stepsOf } from "../../song/comp/patterns";
import { sectionMeter, sectionOf } from "../../song/document";
import type { Edit } from "../../song/edits";
import { drumOf, type PlayerId } from "../../song/players";
import { ownerOf, playingOf } from "../../song/playing";
import type { Drum, Part, Section, Song } from "../../song/schema";
import { accentMap, keepsTime, nearMiss, type AccentRow } from "../../hear/accents/accentMap";

/** What one player would change so that all accent the same places. */
export interface PlayerRequest {
  id: PlayerId;
  name: string;
  /** Steps of the bar: from where to where. */
  moves: [from: number, to: number][];
  /** A short note to the player. */
  note: string;
  /** Null where the part is played in a way that cannot be moved note by note. */
  edit: Edit | null;
}

export interface Agreement {
  /** Accents that all have in the end. */
  steps: number[];
  players: PlayerRequest[];
  /** All changes together. */
  edit: Edit;
}

/** Accents of a bar that stand a sixteenth apart in different players, as chains of neighboring steps. */
export function nearMissChains(rows: readonly AccentRow[], steps: number, tick: Ticks): number[][] {
  const missed = new Set<number>();
  rows.forEach((a, i) =>
    rows.slice(i + 1).forEach((b) => {
      for (const x of a.accents)
        for (const y of b.accents)
          if (nearMiss(x, y, steps, tick) && !b.accents.includes(x) && !a.accents.includes(y)) missed.add(x).add(y);
    }),
  );
  const chains: number[][] = [];
  for (const step of [...missed].sort((a, b) => a - b)) {
    const last = chains.at(-1);
    if (last && nearMiss(step, lastOf(last), steps, tick) && last.length < 3) last.push(step);
    else chains.push([step]);
  }
  // The last steps of a bar stand beside the first ones of the next.
  const [first, last] = [chains[0], chains.at(-1)];
  if (
    first &&
    last &&
    first !== last &&
    nearMiss(lastOf(last), firstOf(first), steps, tick) &&
    first.length + last.length <= 3
  ) {
    chains.pop();
    chains[0] = [...last, ...first];
  }
  return chains.filter((c) => c.length > 1);
}

/** What a step is worth (common practice): struck by a clave, by the kick beside others, for levels of the meter. */
const WEIGHT = { clave: 100, kick: 1.5, level: 0.08 } as const;

/** A clave is what the others play around: it stays. */
const stays = (id: PlayerId): boolean => drumOf(id) === "clave";

/**
 * What speaks for a step: a clave before all, then who strikes it and how hard, the kick first, and its place in the
 * meter.
 */
function weightOf(rows: readonly AccentRow[], meter: Meter, step: number, tick: Ticks): number {
  const striking = rows.filter((r) => r.accents.includes(step));
  const sums = striking.map((r) => {
    if (stays(r.id)) return WEIGHT.clave;
    return (r.strength[step] ?? 0.5) * (drumOf(r.id) === "kick" ? WEIGHT.kick : 1);
  });
  return sums.reduce((a, b) => a + b, 0) + (metricalLevel(meter, step * tick) + 6) * WEIGHT.level;
}

const apartText = (ticks: Ticks): string => {
  if (ticks === 120) return "a sixteenth";
  if (ticks === 80) return "a sixteenth triplet";
  return "a little";
};
const capital = (name: string): string => sure(name[0]).toUpperCase() + name.slice(1);

/**
 * One accent pattern for players whose accents just miss each other: in every chain of accents a sixteenth apart the
 * one that most, and the kick, strike is kept, and the others are asked to come there. Errors: `accents.section`,
 * `accents.agreed` where nobody missed.
 */
export function agreeOnAccents(song: Song, sectionId: string, map = accentMap(song, sectionId)): Result<Agreement> {
  if (!map.ok) return map;
  const { meter, steps, step } = map.value;
  const where = (at: number) => beatText(meter, at * step);
  const rows = map.value.rows.filter((r) => !keepsTime(r.id) && !isSung(song, r.id));
  const found = settled(rows, meter, steps, step);
  if (!found.size)
    return fail("accents.agreed", "All accents fall together or well apart: there is nothing to agree on");
  const players = rows.flatMap((row): PlayerRequest[] => {
    const moves = [...(found.get(row.id) ?? [])].filter(([from, to]) => from !== to);
    if (!moves.length) return [];
    const [from, to] = firstOf(moves);
    const who = rows.filter((r) => r.id !== row.id && r.accents.includes(to)).map((r) => firstOf(r.name.split(",")));
    const others = who.length ? ` with ${who.slice(0, 2).join(" and ")}` : "";
    const more =
      moves.length > 1
        ? ` The same at ${moves
            .slice(1)
            .map(([f]) => where(f))
            .join(", ")}.`
        : "";
    return [
      {
        id: row.id,
        name: row.name,
        moves,
        note:
          `${capital(firstOf(row.name.split(",")))}: you accent ${where(from)}, ` +
          `${apartText(Math.min(mod(to - from, steps), mod(from - to, steps)) * step)} ` +
          `${mod(to - from, steps) < steps / 2 ? "before" : "after"} the others. Would you try it on ` +
          `${where(to)}${others}? Then it lands as one.${more}`,
        edit: moveAttacks(song, sectionId, { id: row.id, moves, steps, tick: step }),
      },
    ];
  });
  const kept = new Set(rows.flatMap((r) => r.accents.map((a) => found.get(r.id)?.get(a) ?? a)));
  const edits = players.flatMap((p) => (p.edit ? [p.edit] : []));
  return ok({ steps: [...kept].sort((a, b) => a - b), players, edit: { do: "all", label: "agree on accents", edits } });
}

/** Rounds in which players come to each other: one may have moved beside a third. */
const ROUNDS = 4;

/** Where each player's accents go, from where they are, until nobody misses anybody. */
function settled(
  rows: readonly AccentRow[],
  meter: Meter,
  steps: number,
  tick: Ticks,
): Map<PlayerId, Map<number, number>> {
  const moves = new Map<PlayerId, Map<number, number>>();
  let now = rows.map((r) => ({ ...r, accents: [...r.accents] }));
  for (let round = 0; round < ROUNDS; round++) {
    const chains = nearMissChains(now, steps, tick);
    if (!chains.length) break;
    const targets = chains.map((chain) =>
      chain.reduce((a, b) => (weightOf(now, meter, b, tick) > weightOf(now, meter, a, tick) ? b : a)),
    );
    now = now.map((row) => {
      if (stays(row.id)) return row;
      const goesTo = (s: number) => {
        const at = chains.findIndex(
          (chain, i) => chain.includes(s) && s !== targets[i] && nearMiss(s, nth(targets, i), steps, tick),
        );
        return at < 0 ? s : nth(targets, at);
      };
      const own = moves.get(row.id) ?? new Map(row.accents.map((s) => [s, s]));
      for (const [from, to] of own) own.set(from, goesTo(to));
      if ([...own].some(([from, to]) => from !== to)) moves.set(row.id, own);
      return { ...row, accents: [...new Set(row.accents.map(goesTo))].sort((x, y) => x - y) };
    });
  }
  return moves;
}

/** A tune keeps its rhythm: the others come to it. */
const isSung = (song: Song, id: string): boolean =>
  ["melody", "vocal"].includes(song.parts.find((p) => p.id === id)?.role ?? "");

/** Attacks that go from some steps of every bar to others. */
interface Moves {
  id: PlayerId;
  moves: readonly [number, number][];
  steps: number;
  tick: Ticks;
}

/** From one step to another, by the nearest way: across the bar line where that is shorter. */
function nearestWay(from: number, to: number, steps: number): number {
  const by = to - from;
  if (by > steps / 2) return by - steps;
  return by < -steps / 2 ? by + steps : by;
}

/** Where an attack goes; null where it stays. */
function goalOf({ moves, steps, tick }: Moves, at: Ticks): Ticks | null {
  const step = mod(Math.round(at / tick), steps);
  const to = moves.findLast(([from]) => from === step)?.[1];
  return to === undefined ? null : at + nearestWay(step, to, steps) * tick;
}

function moveHits(section: Section, drum: Drum, moves: Moves): Edit {
  const length = section.bars * moves.steps * moves.tick;
  const hits = section.groove.lanes.find((l) => l.drum === drum)?.hits ?? [];
  const at = new Map<Ticks, (typeof hits)[number]>();
  for (const hit of hits) {
    // The section comes round again: what goes past its end begins it.
    const start = mod(goalOf(moves, hit.start) ?? hit.start, length);
    const known = at.get(start);
    if (!known || known.velocity < hit.velocity) at.set(start, { ...hit, start });
  }
  const sorted = [...at.values()].sort((a, b) => a.start - b.start);
  return { do: "setLane", section: section.id, drum, change: { hits: sorted } };
}

/** The rhythm of a part that plays the chords, which is written in sixteenths. */
function moveRhythm(song: Song, section: Section, part: Part, { moves, steps, tick }: Moves): Edit | null {
  if (part.link?.kind !== "voicing" || tick !== STEP) return null;
  const meter = sectionMeter(song, section);
  const text = [...stepsOf(playingOf(part, "comp", { section }).rhythm ?? "held", meter)];
  for (let bar = 0; bar * steps < text.length; bar++)
    for (const [from, to] of moves) {
      const a = bar * steps + from;
      const b = mod(a + nearestWay(from, to, steps), text.length);
      if (!/x/i.test(text[a] ?? "")) continue;
      const mark = nth(text, a);
      text[a] = b < a ? "-" : ".";
      text[b] = mark;
    }
  const owned = ownerOf(part, "comp", "rhythm", { section }) === "section";
  const comp = { rhythm: text.join("") };
  return { do: "setPlaying", part: part.id, ...(owned ? { section: section.id } : {}), comp };
}

/** Moves what a player strikes at some steps of every bar to other steps; null where its rhythm is made by a rule. */
export function moveAttacks(song: Song, sectionId: string, moves: Moves): Edit | null {
  const section = sure(sectionOf(song, sectionId));
  const { id, steps, tick } = moves;
  const length = section.bars * steps * tick;
  const drum = drumOf(id);
  if (drum) return moveHits(section, drum, moves);
  const part = song.parts.find((p) => p.id === id);
  if (!part) return null;
  if (part.link) return moveRhythm(song, section, part, moves);
  const notes = (section.notes[id] ?? []).flatMap((n) => {
    const start = goalOf(moves, n.start);
    if (start === null) return [];
    const inside = mod(start, length);
    return [
      { id: n.id, start: inside, duration: Math.max(60, inside === start ? n.duration + n.start - start : n.duration) },
    ];
  });
  return notes.length ? { do: "changeNotes", section: sectionId, part: id, notes } : null;
}
