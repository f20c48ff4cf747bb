import { z } from "zod";
import type { Draft } from "immer";
import { firstOf, sure } from "../../base/list";
import type { Ticks } from "../../theory/time/meter";
import { counted } from "../../theory/words/english";
import { sectionMeter, sectionOf } from "../document";
import { aboutText, readAbout } from "../matter";
import { spliced } from "../place";
import {
  Bars,
  BarSpan,
  ChordEvent,
  Groove,
  LIMITS,
  NotesByPart,
  PartId,
  SectionId,
  type Note,
  type Pass,
  type Section,
  type Song,
} from "../schema";
import { narrowed, shifted, tickNarrowed, tickWidened, widened, type Music } from "../stretch";
import { copiedMaterial, defineEdit, draftOf, refuse, type EditTools } from "./define";

const At = z.int("bars are whole numbers").min(0).max(LIMITS.bars);

type Own = NonNullable<Pass["own"]>[number];

/** How bars, ticks and music of a section go when its time is changed. */
interface Change {
  music<M extends Music>(music: M): M;
  /** Null: it is gone. */
  tick(tick: Ticks): Ticks | null;
  /** Null: none of them is left. */
  span(bars: readonly [number, number]): [number, number] | null;
}

const putMusic = (target: object, { chords, groove, notes }: Music): void =>
  void Object.assign(target, {
    ...(chords ? { chords } : {}),
    ...(groove ? { groove } : {}),
    ...(notes ? { notes } : {}),
  });

/** Takes, waivers and lines of the log go along with the music of their section. */
function changeRecords(draft: Draft<Song>, song: Song, section: string, change: Change): void {
  const gone = new Set<string>();
  draft.takes.forEach((take, i) => {
    if (take.sectionId !== section) return;
    putMusic(take, change.music(sure(song.takes[i])));
    const bars = take.bars && change.span(take.bars);
    if (take.bars && bars) take.bars = bars;
    else if (take.bars) gone.add(take.id);
  });
  // A take of bars that are gone goes with them.
  draft.takes = draft.takes.filter((t) => !gone.has(t.id));
  for (const entry of draft.log) if (entry.takeId !== undefined && gone.has(entry.takeId)) delete entry.takeId;
  draft.waivers = draft.waivers.filter((waiver) => {
    if (waiver.sectionId !== section) return true;
    const { place, pitches } = readAbout(waiver.about);
    if (!/^-?\d+$/.test(place)) return true;
    const at = change.tick(Number(place));
    if (at !== null) waiver.about = aboutText(at, pitches);
    return at !== null;
  });
  for (const { where } of draft.log) {
    if (where?.sectionId !== section || where.tick === undefined) continue;
    const at = change.tick(where.tick);
    if (at === null) delete where.tick;
    else where.tick = at;
  }
}

/** A pass of the section, with the bars it plays and those it has for itself; null where it plays none any more. */
function changedPass(pass: Pass, change: Change): Pass | null {
  const { bars, own, ...rest } = pass;
  const played = bars && change.span(bars);
  if (bars && !played) return null;
  const mine = own?.flatMap((o): Own[] => {
    const span = change.span(o.bars);
    return span ? [{ ...change.music(o), bars: span }] : [];
  });
  return { ...rest, ...(played ? { bars: played } : {}), ...(mine?.length ? { own: mine } : {}) };
}

/** Changes the time of a section and of all that hangs on it. */
function changeTime(draft: Draft<Song>, section: Section, change: Change, { song, note }: EditTools): void {
  const target = draftOf(draft, section.id);
  putMusic(target, change.music(section));
  if (section.beyond) putMusic(sure(target.beyond), change.music(section.beyond));
  changeRecords(draft, song, section.id, change);
  const form = song.form.flatMap((pass, i): Pass[] => {
    if (pass.sectionId !== section.id) return [pass];
    const changed = changedPass(pass, change);
    if (changed) return [changed];
    note({
      code: "bars.pass",
      message: `Pass ${i + 1} played only these bars of ${section.name}: it is out of the form`,
    });
    return [];
  });
  draft.form = form.length ? form : [{ ...withoutBars(firstOf(song.form)) }];
}

const withoutBars = ({ bars: _, own: _own, ...pass }: Pass): Pass => pass;

/**
 * Makes room for bars before a bar (or behind the last): chords, notes and hits from there on go along, what is held
 * over the place lasts on; so do accents, bars of passes, waivers, takes and places of the log.
 */
export const insertBars = defineEdit({
  name: "insertBars",
  title: "insert bars",
  whole: true,
  schema: { section: SectionId, at: At, count: Bars },
  apply(draft, { section: id, at, count }, tools) {
    const section = sure(sectionOf(tools.song, id));
    if (at > section.bars) return refuse("bars", `${section.name} has ${counted(section.bars, "bar")}`);
    if (section.bars + count > LIMITS.bars) return refuse("bars", `A section has at most ${LIMITS.bars} bars`);
    const { bar } = sectionMeter(tools.song, section);
    const [tick, by] = [at * bar, count * bar];
    changeTime(
      draft,
      section,
      {
        music: (m) => widened(m, tick, by),
        tick: (t) => tickWidened(t, tick, by),
        span: ([a, b]) => [a >= at ? a + count : a, b > at ? b + count : b],
      },
      tools,
    );
    draftOf(draft, id).bars = section.bars + count;
  },
});

/** Takes bars out, with all that begins in them; what comes later moves up. */
export const removeBars = defineEdit({
  name: "removeBars",
  title: "remove bars",
  whole: true,
  schema: { section: SectionId, bars: BarSpan },
  apply(draft, { section: id, bars: [from, to] }, tools) {
    const section = sure(sectionOf(tools.song, id));
    if (to > section.bars) return refuse("bars", `${section.name} has ${counted(section.bars, "bar")}`);
    if (from === 0 && to === section.bars)
      return refuse("bars", "A section has at least one bar", "Delete the section instead.");
    const { bar } = sectionMeter(tools.song, section);
    const gone = [from * bar, to * bar] as const;
    const moved = (b: number) => b - Math.max(0, Math.min(b, to) - from);
    changeTime(
      draft,
      section,
      {
        music: (m) => narrowed(m, gone, section.pickup ?? 0),
        tick: (t) => tickNarrowed(t, gone),
        span: ([a, b]) => (moved(a) < moved(b) ? [moved(a), moved(b)] : null),
      },
      tools,
    );
    draftOf(draft, id).bars = section.bars - (to - from);
  },
});

const Copied = {
  chords: z.array(ChordEvent).max(5000).optional(),
  groove: Groove.optional(),
  notes: NotesByPart.optional(),
};

/** Empties bars: chords, drums and parts that are named; all where none is. Pinned notes stay. */
export const clearBars = defineEdit({
  name: "clearBars",
  title: "empty bars",
  schema: {
    section: SectionId,
    bars: BarSpan,
    chords: z.boolean().optional(),
    drums: z.boolean().optional(),
    parts: z.array(PartId).max(LIMITS.parts).optional(),
  },
  apply(draft, { section: id, bars, chords, drums, parts }, { song, fresh }) {
    const section = sure(sectionOf(song, id));
    const whole = chords === undefined && drums === undefined && parts === undefined;
    const named = parts ?? (whole ? Object.keys(section.notes) : []);
    setDown(draft, section, stretchOf(song, section, bars), {
      fresh,
      music: {
        ...((chords ?? whole) ? { chords: [] } : {}),
        ...((drums ?? whole) ? { groove: { lanes: section.groove.lanes.map((l) => ({ ...l, hits: [] })) } } : {}),
        notes: Object.fromEntries(named.map((p) => [p, []])),
      },
    });
  },
});

export const stretchOf = (song: Song, section: Section, [from, to]: readonly [number, number]): [Ticks, Ticks] => {
  const { bar } = sectionMeter(song, section);
  return [from * bar, to * bar];
};

/**
 * Sets copied bars down over those from a bar on: what stood there of the same kind gives way but for pinned notes, a
 * note or chord held into them ends there. What would stand past the end, or is of a part that is gone, is told and
 * left out. To set them down between bars, make room with `insertBars` first.
 */
export const pasteBars = defineEdit({
  name: "pasteBars",
  title: "set bars down",
  schema: { section: SectionId, at: At, bars: Bars, bar: z.int().min(1).max(LIMITS.tick), ...Copied },
  apply(draft, { section: id, at, bars, bar, ...music }, { song, fresh, note }) {
    const section = sure(sectionOf(song, id));
    const meter = sectionMeter(song, section);
    if (meter.bar !== bar)
      return refuse(
        "bars",
        `A bar of what was copied is not as long as one of ${section.name}, in ${meter.text}`,
        "Set them down in a section of the same meter.",
      );
    const end = Math.min(section.bars, at + bars);
    if (at >= section.bars) return refuse("bars", `${section.name} ends with bar ${section.bars}`);
    if (end < at + bars)
      note({
        code: "bars.past",
        message: `${counted(at + bars - end, "bar")} would stand past the end of ${section.name}`,
      });
    const known = new Set(song.parts.map((p) => p.id));
    const gone = Object.keys(music.notes ?? {}).filter((p) => !known.has(p));
    if (gone.length)
      note({ code: "bars.part", message: `${counted(gone.length, "part")} of what was copied are no longer there` });
    const notes = Object.fromEntries(Object.entries(music.notes ?? {}).filter(([p]) => known.has(p)));
    const chords = music.chords?.map((c) => ({ ...c, voicings: knownOnly(c.voicings, known) }));
    const placed = shifted({ ...music, ...(chords ? { chords } : {}), notes } as Music, at * bar);
    setDown(draft, section, [at * bar, end * bar], { music: placed, fresh });
  },
});

/** Layouts of parts that are there. */
function knownOnly(voicings: ChordEvent["voicings"], known: ReadonlySet<string>): ChordEvent["voicings"] {
  const kept = Object.entries(voicings ?? {}).filter(([p]) => known.has(p));
  return kept.length ? Object.fromEntries(kept) : undefined;
}

/** Puts a copy of music into a stretch, in the place of what is there of the same kind; nothing begins behind it. */
export function setDown(
  draft: Draft<Song>,
  section: Section,
  [from, to]: readonly [Ticks, Ticks],
  { music, fresh }: { music: Music; fresh: EditTools["fresh"] },
): void {
  const target = draftOf(draft, section.id);
  const begins = (x: { start: Ticks }) => x.start < to;
  const inside = Object.entries(music.notes ?? {}).map(([part, list]) => [part, list.filter(begins)] as const);
  const { chords, notes = {} } = copiedMaterial(
    { ...(music.chords ? { chords: music.chords.filter(begins) } : {}), notes: Object.fromEntries(inside) } as Music,
    fresh,
  );
  const { groove } = music;
  if (chords) {
    const taken = new Set<string>();
    target.chords = spliced(section.chords, chords, from, to)
      .map(({ voicings, ...c }): ChordEvent => ({ ...c, ...(voicings ? { voicings } : {}) }))
      .map((c) => {
        const id = taken.has(c.id) ? fresh("c") : c.id;
        taken.add(id);
        return { ...c, id };
      });
  }
  if (groove) {
    const drums = new Set([...section.groove.lanes, ...groove.lanes].map((l) => l.drum));
    target.groove.lanes = [...drums].map((drum) => {
      const [lane, own] = [section.groove.lanes, groove.lanes].map((lanes) => lanes.find((l) => l.drum === drum));
      const left = (lane?.hits ?? []).filter((h) => h.start < from || h.start >= to);
      const hits = [...left, ...(own?.hits ?? []).filter(begins)].sort((a, b) => a.start - b.start);
      return { ...sure(lane ?? own), hits };
    });
  }
  for (const [part, list] of Object.entries(notes)) {
    const kept = (section.notes[part] ?? []).flatMap((n): Note[] => {
      const inside = n.start < to && (n.start >= from || from === 0);
      if (n.pinned || n.start >= to) return [n];
      if (inside) return [];
      return [n.start + n.duration > from ? { ...n, duration: from - n.start } : n];
    });
    target.notes[part] = [...kept, ...list].sort((a, b) => a.start - b.start);
  }
}
