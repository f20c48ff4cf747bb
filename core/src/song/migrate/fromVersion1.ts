import { firstOf } from "../../base/list";
import { INSTRUMENTS } from "../../theory/instrument/instruments";
import { must } from "../../base/result";
import { pitchMidi } from "../../theory/pitch/pitch";
import { parseMeter } from "../../theory/time/meter";
import { cutAt } from "../beyond";
import { aboutText } from "../matter";
import type { ChordEvent, Groove, Note } from "../schema/material";
import type { OwnInstrument, Part, Section, Song, Waiver } from "../schema/song";
import { sortSettings } from "./settings";
import type { Note1, Part1, Section1, Song1 } from "./version1";

/** A range with its lower end first; nothing where the two ends are one note. */
const rising = ([a, b]: [string, string]): [string, string] => (pitchMidi(a) <= pitchMidi(b) ? [a, b] : [b, a]);
const spanOf = (ends: [string, string] | undefined): [string, string] | undefined =>
  ends && pitchMidi(ends[0]) !== pitchMidi(ends[1]) ? rising(ends) : undefined;

/** Reasons that have another id now. */
const REASONS: Record<string, string> = { turn: "ending" };

const noteOf = ({ glideTo, reason, ...note }: Note1): Note => ({
  ...note,
  ...(reason ? { reason: { ...reason, id: REASONS[reason.id] ?? reason.id } } : {}),
  ...(glideTo ? { slide: { kind: "glide" as const, to: glideTo } } : {}),
});

/** Things whose ids stood twice, which version 1 allowed, get one of their own. */
function apart<T extends { id: string }>(list: readonly T[], fresh: () => string): T[] {
  const seen = new Set<string>();
  return list.map((x) => {
    const id = seen.has(x.id) ? fresh() : x.id;
    seen.add(id);
    return id === x.id ? x : { ...x, id };
  });
}

/** Version 1 let a drum have two lanes, and played both. */
function oneLaneADrum(groove: Groove): Groove {
  const lanes = new Map<string, Groove["lanes"][number]>();
  for (const lane of groove.lanes) {
    const known = lanes.get(lane.drum);
    lanes.set(
      lane.drum,
      known ? { ...known, hits: [...known.hits, ...lane.hits].sort((a, b) => a.start - b.start) } : lane,
    );
  }
  return { ...groove, lanes: [...lanes.values()] };
}

/** Unknown instruments sounded as a piano; now they are instruments of the song's own. */
function ownInstruments(song: Song1): OwnInstrument[] {
  const piano = firstOf(INSTRUMENTS);
  const own = (song.instruments ?? []).map((i): OwnInstrument => ({
    ...i,
    range: spanOf(i.range) ?? piano.range,
    comfortable: spanOf(i.comfortable) ?? spanOf(i.range) ?? piano.comfortable,
  }));
  for (const { instrument: id } of song.parts)
    if (id && ![...INSTRUMENTS, ...own].some((i) => i.id === id))
      own.push({ ...piano, id, title: id, source: "named in an older file" });
  return own;
}

function partOf(song: Song1, part: Part1): Part {
  const { settings: _, link, range, instrument, ...rest } = part;
  const { playing, unread } = sortSettings(song, part);
  const there = (id: string | undefined) => id !== undefined && song.parts.some((p) => p.id === id);
  const span = spanOf(range);
  return {
    ...rest,
    instrument: instrument || firstOf(INSTRUMENTS).id,
    playing,
    ...(span ? { range: span } : {}),
    ...(link
      ? {
          link: {
            kind: link.kind,
            ...(link.loop === undefined ? {} : { loop: link.loop }),
            ...(there(link.from) ? { from: link.from } : {}),
            ...(there(link.top) ? { top: link.top } : {}),
          },
        }
      : {}),
    ...(Object.keys(unread).length ? { unread } : {}),
  };
}

function sectionOf(song: Song1, section: Section1, fresh: () => string): Section {
  const { copyOf, ...rest } = section;
  const there = (part: string) => song.parts.some((p) => p.id === part);
  const voiced = (c: ChordEvent): ChordEvent => {
    if (!c.voicings || Object.keys(c.voicings).every(there)) return c;
    return { ...c, voicings: Object.fromEntries(Object.entries(c.voicings).filter(([part]) => there(part))) };
  };
  const playing = Object.fromEntries(
    song.parts.flatMap((p) => {
      const own = sortSettings(song, p).bySection.get(section.id);
      return own ? [[p.id, own]] : [];
    }),
  );
  const whole: Section = {
    ...rest,
    ...(song.sections.some((s) => s.id === copyOf) ? { copyOf } : {}),
    chords: apart(section.chords.map(voiced), fresh),
    groove: oneLaneADrum(section.groove),
    notes: Object.fromEntries(Object.entries(section.notes).map(([part, list]) => [part, list.map(noteOf)])),
    ...(Object.keys(playing).length ? { playing } : {}),
  };
  // What version 1 left standing past the end is kept beside the section.
  return cutAt(whole, section.bars * must(parseMeter(section.meter ?? song.meter)).bar);
}

/**
 * A waiver named its finding by rule, section, notes and tick. It keeps the place; and the pitches and parts, where all
 * of its notes are written ones, so that it means the same finding and no other.
 */
function waiverOf(song: Song1, { finding, reason }: Song1["waivers"][number], id: string): Waiver {
  const [rule = "", sectionId = "", ...rest] = finding.split(":");
  const tick = rest.at(-1) ?? "";
  const section = song.sections.find((s) => s.id === sectionId);
  const ids = rest.slice(0, -1).join(":").split("+").filter(Boolean);
  const written = Object.entries(section?.notes ?? {}).flatMap(([part, list]) => list.map((note) => ({ part, note })));
  const notes = ids.flatMap((x) => written.find((w) => w.note.id === x) ?? []);
  const all = ids.length > 0 && notes.length === ids.length;
  return {
    id,
    rule: rule || "unknown",
    ...(section ? { sectionId } : {}),
    parts: all ? [...new Set(notes.map((n) => n.part))] : [],
    about: all
      ? aboutText(
          Number(tick),
          notes.map((n) => n.note.pitch),
        )
      : tick,
    reason,
  };
}

/** A song of version 1 as one of version 2: nothing it says is lost. */
export function fromVersion1(song: Song1): Song {
  let spares = 100_000_000;
  const spare = () => `x${spares++}`;
  const instruments = ownInstruments(song);
  const { instruments: _, ...rest } = song;
  return {
    ...rest,
    version: 2,
    ...(instruments.length ? { instruments } : {}),
    parts: song.parts.map((p) => partOf(song, p)),
    sections: song.sections.map((s) => sectionOf(song, s, spare)),
    form: apart(song.form, spare).map(({ bars, muted, ...pass }) => ({
      ...pass,
      ...(bars && bars[0] < bars[1] ? { bars } : {}),
      ...(muted ? { muted: muted.filter((id) => song.parts.some((p) => p.id === id)) } : {}),
    })),
    singers: apart(song.singers, spare).map(({ comfortable, extremes, ...s }) => ({
      ...s,
      ...(spanOf(comfortable) ? { comfortable: spanOf(comfortable) } : {}),
      ...(spanOf(extremes) ? { extremes: spanOf(extremes) } : {}),
    })),
    waivers: song.waivers.map((w, i) => waiverOf(song, w, `w${i + 1}`)),
    takes: apart(song.takes, spare).flatMap(({ partId, notes, ...take }) =>
      song.sections.some((s) => s.id === take.sectionId) && song.parts.some((p) => p.id === partId)
        ? [{ ...take, notes: { [partId]: notes.map(noteOf) } }]
        : [],
    ),
    log: [],
  };
}
