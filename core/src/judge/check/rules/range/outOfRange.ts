import { sure } from "../../../../base/list";
import { counted, inSentence } from "../../../../theory/words/english";
import { positionText } from "../../../../theory/time/meter";
import type { Meter } from "../../../../theory/time/meter";
import { COMP_KINDS } from "../../../../song/comp/kinds";
import { linkedNotes } from "../../../../song/linked";
import { ownerOf, playingOf } from "../../../../song/playing";
import type { Part, Section, Song } from "../../../../song/schema";
import { instrumentOf, midiRange } from "../../../../theory/instrument/instruments";
import { singerOf, singerRange } from "../../../../hear/singer/range";
import { pitchMidi, type Midi } from "../../../../theory/pitch/pitch";
import type { RealizedNote } from "../../../../song/realize";
import { octaveShift } from "../../../../arrange/room/room";
import type { CheckContext, Fix, RawFinding, Rule } from "../../rule";
import { waysOut } from "../../ways/ways";

export const outOfRange: Rule = {
  id: "out-of-range",
  title: "Outside the range",
  family: "range",
  explanation: "The note lies outside what the instrument or voice can sound, or outside the range set for the part.",
  source: "ranges of orchestration handbooks; voices in four parts after Kostka & Payne",
  severity: { chorale: "fault", band: "fault", jazz: "fault", loop: "fault" },
  find(ctx) {
    const { song, section, sliced, meter } = ctx;
    return song.parts
      .filter((p) => p.role !== "drums")
      .flatMap((part) => {
        const instrument = instrumentOf(part.instrument, song);
        const singer = singerOf(song, part.id);
        const [low, high] = singer ? singerRange(song, singer).extremes : midiRange(part.range ?? instrument.range);
        const ends = singer?.extremes ?? part.range ?? instrument.range;
        if (part.link?.from) return liftedOut(song, section, part, { range: [low, high], meter });
        const { notes } = sure(sliced.real.parts.find((p) => p.id === part.id));
        const whole = allShifted(ctx, part, notes, [low, high]);
        return notes
          .filter((n) => n.midi < low || n.midi > high)
          .map((note) => {
            const inside =
              note.midi < low
                ? note.midi + 12 * Math.ceil((low - note.midi) / 12)
                : note.midi - 12 * Math.ceil((note.midi - high) / 12);
            const by = note.midi < low ? low - note.midi : note.midi - high;
            return {
              tick: note.start,
              duration: note.duration,
              parts: [part.id],
              notes: [note.id],
              whole,
              // Block chords follow their tune: there the tune or the instrument has to change.
              fixes:
                part.link?.kind === "block"
                  ? []
                  : waysOut(ctx, {
                      notes: [note],
                      also: inside,
                      clear: (p) => p(note) >= low && p(note) <= high,
                      phrases: true,
                    }),
              amount: `${counted(by, "semitone")} ${note.midi < low ? "too low" : "too high"}`,
              message:
                `${part.name}: ${note.pitch} at ${positionText(meter, note.start)} is outside the range ` +
                `${ends.join("–")} of ${singer ? singer.name : `the ${inSentence(instrument.title)}`}.`,
            };
          });
      });
  },
};

/** So many notes outside, and the whole line may lie in the wrong octave (common practice). */
const MANY = 3;

/** All of a part in another octave, where much of it lies outside its range and none of it would there. */
function allShifted(
  { song, section }: CheckContext,
  part: Part,
  notes: readonly RealizedNote[],
  [low, high]: readonly [Midi, Midi],
): Fix | undefined {
  const outside = notes.filter((n) => n.midi < low || n.midi > high);
  const [first] = outside;
  if (!first || outside.length < MANY) return undefined;
  const way = first.midi < low ? 1 : -1;
  if (notes.some((n) => n.midi + 12 * way < low || n.midi + 12 * way > high)) return undefined;
  const edit = octaveShift(song, section, part, { during: notes, way });
  const [name] = part.name.split(",");
  return edit
    ? { label: `All of ${name} in ${section.name} an octave ${way > 0 ? "higher" : "lower"}`, edit }
    : undefined;
}

/**
 * A part that plays another's voicings leaves its range: found once, for its first note; an octave lower or higher as a
 * whole may cure it.
 */
function liftedOut(
  song: Song,
  section: Section,
  part: Part,
  { range: [low, high], meter }: { range: [Midi, Midi]; meter: Meter },
): RawFinding[] {
  const outside = linkedNotes(song, section, part)
    .map(({ note }) => ({ note, midi: pitchMidi(note.pitch) }))
    .filter(({ midi }) => midi < low || midi > high);
  const [first] = outside;
  if (!first) return [];
  const lift = playingOf(part, "comp", { section }).lift ?? (sure(part.link).kind === "octave" ? 1 : 0);
  const own = ownerOf(part, "comp", "lift", { section }) === "section" ? { section: section.id } : {};
  const way = first.midi < low ? 1 : -1;
  const lifts = sure(COMP_KINDS.find((k) => k.id === sure(part.link).kind)).settings.includes("lift");
  return [
    {
      tick: first.note.start,
      duration: first.note.duration,
      parts: [part.id],
      notes: [first.note.id],
      amount: `${outside.length} ${outside.length === 1 ? "note" : "notes"}`,
      message:
        `${part.name}: ${first.note.pitch} at ${positionText(meter, first.note.start)} is outside the range of ` +
        `the ${inSentence(instrumentOf(part.instrument, song).title)}.`,
      fixes: lifts
        ? [
            {
              label: `All of it an octave ${way > 0 ? "higher" : "lower"}`,
              edit: { do: "setPlaying", part: part.id, ...own, comp: { lift: lift + way } },
            },
          ]
        : [],
    },
  ];
}
