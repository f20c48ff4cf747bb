import { sure } from "../../base/list";
import { fail, ok, type Result } from "../../base/result";
import { intervalWords } from "../../theory/pitch/interval";
import { mod, type PitchName } from "../../theory/pitch/pitch";
import { positionText, type Ticks } from "../../theory/time/meter";
import { toneRole } from "../../theory/chord/chord";
import { counted, withArticle } from "../../theory/words/english";
import { partOf, sectionKey, sectionMeter, sectionTempo } from "../../song/document";
import { keyName } from "../../theory/pitch/key";
import { chordAtTick, type RealizedNote } from "../../song/realize";
import type { Part, Song } from "../../song/schema";
import { chordsAt, notesAt } from "../sounding";
import { factsOf } from "../../facts/memory";
import { sectionPlace } from "../../song/place";
import { versesOf } from "../lyrics/words";
import { ROLE_WORDS } from "../slice/roles";
import { breathsOf } from "./breaths";
import { isSung } from "./range";

/** Where a singer comes in after a rest of a bar or more, and where to take the note from. */
export interface Entrance {
  tick: Ticks;
  pitch: PitchName;
  words: string;
}

/** A section as it stands on a singer's page. */
export interface PageSection {
  section: string;
  name: string;
  key: string;
  meter: string;
  tempo: number;
  bars: number;
  /** The tune to be printed small beside the own line; null where the singer sings it, or where there is none. */
  tune: Part["id"] | null;
  sings: boolean;
  entrances: Entrance[];
  /** Ends of notes after which to breathe. */
  breaths: Ticks[];
  /** Lines of words, one a verse, by the note they stand under. */
  verses: { start: Ticks; text: string }[][];
  chords: { start: Ticks; symbol: string }[];
}

export interface SingerPage {
  singer: string;
  voice: string;
  part: Part["id"];
  partName: string;
  key: string;
  /** The sections in the order in which they are sung: "Verse, Chorus, Verse, Chorus". */
  form: string[];
  sections: PageSection[];
}

/** The tune of a song for those who sing beside it: the first melody, else the first voice. */
const tuneOf = (song: Song, but: string): Part | undefined =>
  song.parts.find((p) => p.role === "melody" && p.id !== but) ??
  song.parts.find((p) => p.role === "vocal" && p.id !== but);

/** Where the first note of a phrase is taken from: the tune that sounds or has just sounded, else the chord. */
function takenFrom(
  note: RealizedNote,
  tune: readonly RealizedNote[],
  tuneName: string,
  chords: ReturnType<typeof chordAtTick>,
): string {
  const before = tune.findLast((n) => n.start <= note.start);
  if (before) {
    const apart = note.midi - before.midi;
    const now = before.start === note.start || before.start + before.duration > note.start;
    const where = `${tuneName.split(",")[0]}’s ${now ? "" : "last note, "}${before.pitch}`;
    return apart === 0
      ? `on ${where}`
      : `${withArticle(intervalWords(Math.abs(apart)))} ${apart > 0 ? "above" : "below"} ${where}`;
  }
  if (!chords?.chord) return "";
  const { role } = toneRole(chords.chord, mod(note.midi, 12));
  return `the ${ROLE_WORDS[role] ?? role} of ${chords.symbol}`;
}

/**
 * All that a singer's page says beside the notes. Errors: `page.singer` where there is no such singer, or none of the
 * parts is theirs.
 */
export function singerPage(song: Song, singerId: string): Result<SingerPage> {
  const singer = song.singers.find((s) => s.id === singerId);
  const part = singer?.partId === undefined ? undefined : partOf(song, singer.partId);
  if (!singer || !part)
    return fail("page.singer", `No singer with a part has the id "${singerId}"`, {
      hint: "Say in Singers which part they sing.",
    });
  const read = factsOf(song);
  const sings = isSung(song, part) && part.role === "melody" ? undefined : tuneOf(song, part.id);
  const order = song.form.length ? song.form.map((p) => p.sectionId) : song.sections.map((s) => s.id);
  const sections = [...new Set(order)].map((id): PageSection => {
    const section = sure(song.sections.find((s) => s.id === id));
    const meter = sectionMeter(song, section);
    const place = sectionPlace(id);
    const own = read.get(notesAt, place, part.id, "played");
    const tune = sings ? read.get(notesAt, place, sings.id, "played") : [];
    const chords = read.get(chordsAt, place);
    const phrases = breathsOf(song, { section: id, part: part.id });
    const entrances = own.flatMap((note, i): Entrance[] => {
      const before = own[i - 1];
      const rest = note.start - (before ? before.start + before.duration : 0);
      if (before && rest < meter.bar) return [];
      const waited = Math.round(rest / meter.bar);
      const from = takenFrom(note, tune, sings?.name ?? "", chordAtTick(chords, Math.max(0, note.start)));
      return [
        {
          tick: note.start,
          pitch: note.pitch,
          words:
            `${positionText(meter, note.start).replace(/^pickup/, "the pickup")}${
              waited > 0 ? ", after " + `${counted(waited, "bar")}` : ""
            }: ` + `${note.pitch}${from ? `, ${from}` : ""}`,
        },
      ];
    });
    return {
      section: id,
      name: section.name,
      key: keyName(sectionKey(song, section)),
      meter: meter.text,
      tempo: sectionTempo(song, section),
      bars: section.bars,
      tune: tune.length && sings ? sings.id : null,
      sings: own.length > 0,
      entrances,
      breaths: phrases.ok
        ? phrases.value.flatMap((p, k) => [
            ...p.breaths.map((b) => b.tick),
            ...(k < phrases.value.length - 1 ? [p.end] : []),
          ])
        : [],
      verses: Array.from({ length: versesOf(section.notes[part.id] ?? []) }, (_, v) =>
        own.flatMap((n) => {
          const text = n.lyrics?.[v];
          return text && text !== "_" ? [{ start: n.start, text }] : [];
        }),
      ).filter((line) => line.length > 0),
      chords: chords.map((c) => ({ start: c.start, symbol: c.symbol })),
    };
  });
  return ok({
    singer: singer.name,
    voice: singer.voice,
    part: part.id,
    partName: part.name,
    key: song.key,
    form: order.map((id) => sure(song.sections.find((s) => s.id === id)).name),
    sections,
  });
}
