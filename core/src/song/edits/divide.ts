import { z } from "zod";
import type { Draft } from "immer";
import { given } from "../../base/given";
import { nth, sure } from "../../base/list";
import type { Problem } from "../../base/result";
import type { Ticks } from "../../theory/time/meter";
import { sectionMeter, sectionOf } from "../document";
import { beginningAt } from "../layouts";
import { aboutText, readAbout } from "../matter";
import {
  Duration,
  LIMITS,
  SectionId,
  Title,
  type ChordEvent,
  type Pass,
  type Section,
  type Song,
  type Take,
} from "../schema";
import { shifted, type Music } from "../stretch";
import { defineEdit, refuse, type EditTools } from "./define";

type Own = NonNullable<Pass["own"]>[number];

/** Music up to a tick and from it on, this in ticks of its own; an upbeat of so many ticks goes with what follows. */
function divided<M extends Music>(music: M, at: Ticks, pickup: Ticks, fresh: () => string): [Music, Music] {
  const { chords, groove, notes } = music;
  const first = <T extends { start: Ticks }>(list: readonly T[], from = at): T[] => list.filter((x) => x.start < from);
  const rest = <T extends { start: Ticks }>(list: readonly T[], from = at): T[] => list.filter((x) => x.start >= from);
  const before = (chords ?? []).flatMap((c): ChordEvent[] => {
    if (c.start >= at) return [];
    return [c.start + c.duration > at ? { ...c, duration: at - c.start } : c];
  });
  const after = (chords ?? []).flatMap((c): ChordEvent[] => {
    if (c.start + c.duration <= at) return [];
    return [c.start < at ? { ...beginningAt(c, at), id: fresh(), duration: c.start + c.duration - at } : c];
  });
  const both = (side: "first" | "rest"): Music => ({
    ...(chords ? { chords: side === "first" ? before : after } : {}),
    ...(groove
      ? {
          groove: {
            ...groove,
            lanes: groove.lanes.map((l) => ({ ...l, hits: side === "first" ? first(l.hits) : rest(l.hits) })),
            ...(groove.accents ? { accents: groove.accents.filter((a) => (side === "first" ? a < at : a >= at)) } : {}),
          },
        }
      : {}),
    ...(notes
      ? {
          notes: Object.fromEntries(
            Object.entries(notes).map(([part, list]) => [
              part,
              side === "first" ? first(list, at - pickup) : rest(list, at - pickup),
            ]),
          ),
        }
      : {}),
  });
  return [both("first"), shifted(both("rest"), -at)];
}

/** Stretches of own bars before a bar and from it on. */
function dividedOwn(own: readonly Own[], bar: number, bars: Ticks, fresh: () => string): [Own[], Own[]] {
  const before: Own[] = [];
  const after: Own[] = [];
  for (const {
    bars: [a, b],
    ...music
  } of own) {
    const [first, rest] = divided(music, bar * bars, 0, fresh);
    if (a < bar) before.push({ bars: [a, Math.min(b, bar)], ...first });
    if (b > bar) after.push({ bars: [Math.max(a, bar) - bar, b - bar], ...rest });
  }
  return [before, after];
}

/** Records of a section from a tick on go to another one, so much earlier; of a take, all of it stays. */
function moveRecords(draft: Draft<Song>, [from, to]: readonly [string, string], at: Ticks, by: Ticks): void {
  for (const waiver of draft.waivers) {
    const { place, pitches } = readAbout(waiver.about);
    if (waiver.sectionId !== from || !/^-?\d+$/.test(place) || Number(place) < at) continue;
    waiver.sectionId = to;
    waiver.about = aboutText(Number(place) + by, pitches);
  }
  for (const { where } of draft.log) {
    if (where?.sectionId !== from || (where.tick ?? 0) < at) continue;
    where.sectionId = to;
    if (where.tick !== undefined) where.tick += by;
  }
}

/**
 * Divides a section before a bar: what follows is a section of its own, played behind the first wherever that was
 * played, with the bars that passes have for themselves, waivers and the log. `pickup`: notes that begin so many ticks
 * before it are its upbeat. Takes are divided as well. Made: the section.
 */
export const splitSection = defineEdit({
  name: "splitSection",
  title: "divide a section",
  whole: true,
  schema: {
    section: SectionId,
    at: z.int("bars are whole numbers").min(1, "a section has at least one bar").max(LIMITS.bars),
    name: Title.optional(),
    pickup: Duration.optional(),
  },
  apply(draft, { section: id, at, name, pickup = 0 }, { song, fresh }) {
    const section = sure(sectionOf(song, id));
    if (at >= section.bars)
      return refuse("split", `${section.name} has ${section.bars} bars: nothing is left behind bar ${at}`);
    if (song.sections.length >= LIMITS.sections)
      return refuse("split", `A song has at most ${LIMITS.sections} sections`);
    const { bar } = sectionMeter(song, section);
    const next = fresh("s");
    const chordId = () => fresh("c");
    const { chords, groove, notes, beyond, copyOf: _, pickup: own, ...plain } = section;
    const [first, rest] = divided({ chords, groove, notes }, at * bar, pickup, chordId);
    const at2 = draft.sections.findIndex((s) => s.id === id);
    const before: Section = {
      ...plain,
      ...(first as Required<Music>),
      bars: at,
      ...(own ? { pickup: own } : {}),
    } as Section;
    const after: Section = {
      ...plain,
      ...(rest as Required<Music>),
      id: next,
      name: name ?? nextName(song, section.name),
      bars: section.bars - at,
      ...(pickup ? { pickup } : {}),
      ...(beyond ? { beyond: shifted(beyond, -at * bar) } : {}),
    } as Section;
    draft.sections.splice(at2, 1, before, after);
    draft.form = song.form.flatMap((pass) =>
      pass.sectionId === id ? dividedPass(pass, next, { at, section, bar }, fresh) : [pass],
    );
    moveRecords(draft, [id, next], at * bar, -at * bar);
    draft.takes = song.takes.flatMap((t) =>
      t.sectionId === id ? dividedTake(t, next, { at, section, bar }, fresh) : [t],
    );
  },
});

const nextName = (song: Song, name: string): string => {
  const taken = new Set(song.sections.map((s) => s.name));
  const plain = `${name}, second part`;
  if (!taken.has(plain)) return plain;
  let n = 2;
  while (taken.has(`${plain} ${n}`)) n++;
  return `${plain} ${n}`;
};

/** A pass of a section that is divided: one pass, or two. */
function dividedPass(
  pass: Pass,
  next: string,
  { at, section, bar }: { at: number; section: Section; bar: Ticks },
  fresh: EditTools["fresh"],
): Pass[] {
  const { bars: [from, to] = [0, section.bars], own = [], ...rest } = pass;
  const [ownBefore, ownAfter] = dividedOwn(own, at, bar, () => fresh("c"));
  const part = (sectionId: string, [a, b]: [number, number], bars: number, mine: Own[]): Pass => ({
    ...rest,
    sectionId,
    ...(a === 0 && b === bars ? {} : { bars: [a, b] }),
    ...(mine.length ? { own: mine } : {}),
  });
  const before = from < at ? [part(section.id, [from, Math.min(to, at)], at, ownBefore)] : [];
  const tail: [number, number] = [Math.max(0, from - at), to - at];
  const after = to > at ? [part(next, tail, section.bars - at, ownAfter)] : [];
  return before.length && after.length ? [...before, { ...nth(after, 0), id: fresh("o") }] : [...before, ...after];
}

/** A take of a section that is divided: of the one side, of the other, or one of each. */
function dividedTake(
  take: Take,
  next: string,
  { at, section, bar }: { at: number; section: Section; bar: Ticks },
  fresh: EditTools["fresh"],
): Take[] {
  const { bars: [from, to] = [0, section.bars], chords, groove, notes, ...rest } = take;
  const [first, second] = divided(given({ chords, groove, notes }), at * bar, 0, () => fresh("c"));
  const part = (sectionId: string, span: [number, number], bars: number, music: Music): Take => ({
    ...rest,
    sectionId,
    ...(span[0] === 0 && span[1] === bars ? {} : { bars: span }),
    ...music,
  });
  const before = from < at ? [part(section.id, [from, Math.min(to, at)], at, first)] : [];
  const after = to > at ? [part(next, [Math.max(0, from - at), to - at], section.bars - at, second)] : [];
  return before.length && after.length ? [...before, { ...nth(after, 0), id: fresh("t") }] : [...before, ...after];
}

/** What two sections have to share to be one. */
const SHARED = ["key", "tempo", "meter", "swing"] as const;
const SAID: Record<(typeof SHARED)[number], string> = {
  key: "keys",
  tempo: "tempos",
  meter: "meters",
  swing: "feels",
};

/** Why two sections cannot be one; null where they can. */
function joinRefused(song: Song, first: Section, second: Section): Problem | null {
  if (first.id === second.id) return refuse("join", "A section is not joined with itself");
  const odd = SHARED.find((name) => JSON.stringify(first[name]) !== JSON.stringify(second[name]));
  if (odd) return refuse("join", `${first.name} and ${second.name} are in different ${SAID[odd]}`);
  if (JSON.stringify(first.playing ?? {}) !== JSON.stringify(second.playing ?? {}))
    return refuse("join", `Parts play otherwise in ${first.name} than in ${second.name}`, "Set them alike first.");
  if (first.bars + second.bars > LIMITS.bars) return refuse("join", `A section has at most ${LIMITS.bars} bars`);
  return formRefused(song, first, second);
}

/** Why the form does not let two sections be one. */
function formRefused(song: Song, first: Section, second: Section): Problem | null {
  for (const [i, pass] of song.form.entries()) {
    const place = `pass ${i + 1}`;
    if (pass.sectionId === first.id && song.form[i + 1]?.sectionId !== second.id)
      return refuse("join", `${first.name} is played without ${second.name} behind it (${place})`);
    if (pass.sectionId === second.id && song.form[i - 1]?.sectionId !== first.id)
      return refuse("join", `${second.name} is played without ${first.name} before it (${place})`);
    const unlike = pass.sectionId === first.id ? unlikePasses(pass, nth(song.form, i + 1), first) : null;
    if (unlike) return refuse("join", `${first.name} and ${second.name} are ${unlike} (${place})`);
  }
  return null;
}

/** What two passes that follow each other do not have in common. */
function unlikePasses(a: Pass, b: Pass, first: Section): string | null {
  if ((a.transpose ?? 0) !== (b.transpose ?? 0)) return "played in different keys there";
  if (JSON.stringify([a.muted ?? [], a.playing ?? {}]) !== JSON.stringify([b.muted ?? [], b.playing ?? {}]))
    return "played by different players there";
  const whole = (a.bars?.[1] ?? first.bars) === first.bars && (b.bars?.[0] ?? 0) === 0;
  return whole ? null : "not played up to where they meet";
}

/**
 * Makes one section of two that are always played one after the other, alike in key, tempo, meter and players: the
 * second goes behind the first with its upbeat, takes, waivers and all. What is kept past the end of the first is told
 * and left out.
 */
export const joinSections = defineEdit({
  name: "joinSections",
  title: "join two sections",
  whole: true,
  schema: { section: SectionId, with: SectionId, name: Title.optional() },
  apply(draft, { section: id, with: other, name }, { song, fresh, note }) {
    const [first, second] = [sure(sectionOf(song, id)), sure(sectionOf(song, other))];
    const refused = joinRefused(song, first, second);
    if (refused) return refused;
    const { bar } = sectionMeter(song, first);
    const by = first.bars * bar;
    const behind = shifted({ chords: second.chords, groove: second.groove, notes: second.notes }, by);
    const bars = first.bars + second.bars;
    const target = sure(draft.sections.find((s) => s.id === id));
    Object.assign(target, together(first, behind, fresh), { bars, name: name ?? first.name });
    if (first.beyond)
      note({
        code: "join.beyond",
        message: `What was kept past the end of ${first.name} is gone: bars stand there now`,
      });
    if (second.beyond) target.beyond = shifted(second.beyond, by);
    else delete target.beyond;
    draft.sections = draft.sections.filter((s) => s.id !== other);
    for (const s of draft.sections) if (s.copyOf === other) delete s.copyOf;
    draft.form = song.form.flatMap((pass, i): Pass[] => {
      if (pass.sectionId === other) return [];
      return [pass.sectionId === id ? joinedPass([pass, nth(song.form, i + 1)], [first, second], bar) : pass];
    });
    moveRecords(draft, [other, id], -Infinity, by);
    for (const w of draft.waivers) if (w.sectionId === other) w.sectionId = id;
    for (const take of draft.takes) {
      const mine = take.sectionId === id;
      if (mine) take.bars ??= [0, first.bars];
      if (mine || take.sectionId !== other) continue;
      const [a, b] = take.bars ?? [0, second.bars];
      take.bars = [a + first.bars, b + first.bars];
      const { chords, groove, notes } = take;
      Object.assign(take, shifted(given({ chords, groove, notes }), by), { sectionId: id });
    }
  },
});

/** The music of two sections as one; ids that stand twice are made anew. */
function together(
  first: Section,
  { chords = [], groove, notes = {} }: Music,
  fresh: EditTools["fresh"],
): Required<Music> {
  const own = <T extends { id: string; start: Ticks }>(a: readonly T[], b: readonly T[], taken: Set<string>): T[] => {
    for (const x of a) taken.add(x.id);
    const later = b.map((x) => (taken.has(x.id) ? { ...x, id: fresh("n") } : x));
    for (const x of later) taken.add(x.id);
    return [...a, ...later].sort((x, y) => x.start - y.start);
  };
  const parts = [...new Set([...Object.keys(first.notes), ...Object.keys(notes)])];
  const taken = new Set(Object.values(first.notes).flatMap((list) => list.map((n) => n.id)));
  const lanes = [...new Set([...first.groove.lanes, ...(groove?.lanes ?? [])].map((l) => l.drum))].map((drum) => {
    const [a, b] = [first.groove.lanes, groove?.lanes ?? []].map((list) => list.find((l) => l.drum === drum));
    return { ...sure(a ?? b), hits: [...(a?.hits ?? []), ...(b?.hits ?? [])] };
  });
  const accents = [...(first.groove.accents ?? []), ...(groove?.accents ?? [])];
  const manual = first.groove.accents ?? groove?.accents;
  return {
    chords: own(first.chords, chords, new Set()),
    groove: { lanes, ...(manual ? { accents } : {}) },
    notes: Object.fromEntries(parts.map((p) => [p, own(first.notes[p] ?? [], notes[p] ?? [], taken)])),
  };
}

function joinedPass([a, b]: [Pass, Pass], [first, second]: [Section, Section], bar: Ticks): Pass {
  const [from, to] = [a.bars?.[0] ?? 0, first.bars + (b.bars?.[1] ?? second.bars)];
  const { bars: _, own: _own, voicings: _voicings, ...rest } = a;
  const own = [
    ...(a.own ?? []),
    ...(b.own ?? []).map(({ bars: [x, y], ...m }): Own => ({
      ...shifted(m, first.bars * bar),
      bars: [x + first.bars, y + first.bars],
    })),
  ];
  const parts = [...new Set([...Object.keys(a.voicings ?? {}), ...Object.keys(b.voicings ?? {})])];
  const voicings = Object.fromEntries(parts.map((p) => [p, { ...a.voicings?.[p], ...b.voicings?.[p] }]));
  const whole = from === 0 && to === first.bars + second.bars;
  return {
    ...rest,
    ...(whole ? {} : { bars: [from, to] }),
    ...(own.length ? { own } : {}),
    ...(parts.length ? { voicings } : {}),
  };
}
