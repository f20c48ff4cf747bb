import { nth } from "../../base/list";
import { fail, ok, type Result } from "../../base/result";
import { mod } from "../../theory/pitch/pitch";
import type { Ticks } from "../../theory/time/meter";
import { bassPc } from "../../theory/chord/chord";
import { DRUM_KINDS, TUNABLE, type Drum } from "../../theory/instrument/drums";
import { sectionMeter, sectionOf } from "../../song/document";
import type { Edit } from "../../song/edits";
import { chordAtTick, realize } from "../../song/realize";
import type { Hit, Part, Song } from "../../song/schema";
import { spellAt } from "../../song/spell";
import { plainNotes } from "./sharing";

/** The edit that makes a tuned drum a drum again, and brings the line back that made room for it. */
export function drumUntuned(song: Song, section: string, part: Part["id"], drum: Drum): Edit {
  const here = sectionOf(song, section);
  const lane = here?.groove.lanes.find((l) => l.drum === drum);
  const plain = (lane?.hits ?? []).map(({ pitch: _, glideTo: __, duration: ___, ...hit }) => hit);
  const kept = song.takes.findLast((t) => t.sectionId === section && t.notes?.[part])?.notes?.[part];
  const silent = !here?.notes[part]?.length;
  return {
    do: "all",
    label: "drum untuned",
    edits: [
      { do: "setLane", section, drum, change: { tuned: null, hits: plain } },
      ...(silent && kept ? [{ do: "setNotes" as const, section, part, notes: plainNotes(kept) }] : []),
    ],
  };
}

/**
 * A low tuned drum as the bass: its pitch from the line (or from the chords where the line is silent), every tail ended
 * before the next note. With `rhythm: "line"` its hits are the line's, otherwise its own. `instead`: the line is kept
 * as a take and makes room for the drum. Errors: `bass.drum`.
 */
export function drumAsBass(
  song: Song,
  sectionId: string,
  part: Part["id"],
  {
    drum,
    how: { rhythm, glides, instead },
  }: { drum: Drum; how: { rhythm: "line" | "drum"; glides: boolean; instead: boolean } },
): Result<Edit> {
  const section = sectionOf(song, sectionId);
  if (!section) return fail("bass.section", `No section has the id "${sectionId}"`);
  if (!TUNABLE.includes(drum))
    return fail("bass.drum", `The ${DRUM_KINDS[drum].title} has no pitch of its own`, {
      hint: `Drums that can be tuned: ${TUNABLE.map((d) => DRUM_KINDS[d].title).join(", ")}.`,
    });
  const length = section.bars * sectionMeter(song, section).bar;
  const line = [...(section.notes[part] ?? [])].filter((n) => n.start >= 0).sort((a, b) => a.start - b.start);
  const own = section.groove.lanes.find((l) => l.drum === drum)?.hits ?? [];
  const source: Hit[] =
    rhythm === "line"
      ? line.map((n) => ({ start: n.start, velocity: n.velocity }))
      : own.filter((h) => h.start < length);
  if (!source.length)
    return fail(
      "bass.drum",
      rhythm === "line" ? "There is no bass line to follow" : `The ${DRUM_KINDS[drum].title} has no hits yet`,
      {
        hint: rhythm === "line" ? "Write a line first." : "Paint some, or let it play the line’s rhythm.",
      },
    );
  const real = realize(song, { section: sectionId });
  const pitchAt = (tick: Ticks): string | null => {
    const note =
      line.findLast((n) => n.start <= tick && n.start + n.duration > tick) ??
      line.find((n) => Math.abs(n.start - tick) < 60);
    if (note) return note.pitch;
    const chord = chordAtTick(real.chords, tick);
    if (!chord?.chord) return null;
    // The chord's bass in the octave from E1, where such drums speak.
    return spellAt(song, section, tick, 28 + mod(bassPc(chord.chord) - 28, 12));
  };
  const hits = source.flatMap((hit, i): Hit[] => {
    const pitch = pitchAt(hit.start);
    if (!pitch) return [];
    const end = source[i + 1]?.start ?? length;
    const note = rhythm === "line" ? nth(line, i) : line.find((n) => n.start === hit.start);
    const room = end - hit.start;
    // The tail ends a moment before the next note, so that two of them never sound at once.
    const duration = Math.max(30, Math.min(note?.duration ?? room, room - 15));
    const next = source[i + 1] && pitchAt(nth(source, i + 1).start);
    return [
      {
        start: hit.start,
        velocity: hit.velocity,
        ...(hit.offset ? { offset: hit.offset } : {}),
        duration,
        pitch,
        ...(glides && next && next !== pitch && duration >= 360 ? { glideTo: next } : {}),
      },
    ];
  });
  const edits: Edit[] = [{ do: "setLane", section: sectionId, drum, change: { tuned: true, hits } }];
  if (instead && line.length) {
    edits.push({ do: "keepTake", section: sectionId, part, name: `before the ${DRUM_KINDS[drum].title} took over` });
    edits.push({ do: "setNotes", section: sectionId, part, notes: [] });
  }
  return ok({ do: "all", label: "drum as bass", edits });
}
