import { useState } from "react";
import { firstOf, Frets, Instrument, type Part, type Song, sure } from "../../../core/src/index";
import type { SectionData } from "../../app/store/sectionData";
import { useSelection } from "../../app/store/selection";
import { NEW_PART, partsFor } from "./hands";

type Tuning = (typeof Frets.TUNINGS)[number];
export const tuningOf = (id: string): Tuning => sure(Frets.TUNINGS.find((t) => t.id === id));

/** Who plays a tuning where a part is added for it. */
function playerOf({ id, strings }: Tuning): { instrument: string; name: string } {
  if (id.startsWith("ukulele")) return { instrument: "ukulele", name: "Ukulele" };
  return id.startsWith("bass") || strings.length < 6
    ? { instrument: "bassGuitar", name: "Bass chords" }
    : { instrument: "guitar", name: "Guitar" };
}

/** Open strings of a fretted part. */
function stringsOf(song: Song, part: Part): readonly string[] {
  const { held } = Instrument.of(part.instrument, song);
  return part.playing.voicing?.tuning ?? (held.by === "frets" ? held.strings : []);
}

/** The tuning one begins with: that of the part whose layouts are worked on, where it has a neck. */
const usualTuning = (song: Song, part: Part | undefined): Tuning =>
  Frets.TUNINGS.find((t) => part && t.strings.join() === stringsOf(song, part).join()) ?? firstOf(Frets.TUNINGS);

const usualPart = (parts: readonly Part[], first: Part | undefined): string =>
  (parts.find((p) => p === first) ?? parts[0])?.id ?? NEW_PART;

/** The strings and the capo shapes are entered on: those of the part they are meant for, until others are chosen. */
export function useNeck({ song }: SectionData) {
  const [knownId, setKnownId] = useState<string | null>(null);
  const [typed, setTyped] = useState<string | null>(null);
  const [capo, setCapo] = useState<number | null>(null);
  const [chosen, setTarget] = useState<string | null>(null);
  const worked = useSelection((s) => s.voicePart);
  const fretted = partsFor(song, "frets");
  const first = fretted.find((p) => p.id === worked) ?? fretted[0];
  const known = knownId === null ? usualTuning(song, first) : tuningOf(knownId);
  const parts = fretted.filter((p) => stringsOf(song, p).length === known.strings.length);
  const target = chosen ?? usualPart(parts, first);
  const part = parts.find((p) => p.id === target);
  const tuning = typed === null ? null : Frets.parseTuning(typed, known.strings);
  const own = part && knownId === null ? stringsOf(song, part) : known.strings;
  return {
    known,
    typed,
    tuning,
    setTyped,
    strings: tuning?.ok ? tuning.value : own,
    capo: capo ?? part?.playing.voicing?.capo ?? 0,
    setCapo,
    parts,
    target,
    setTarget,
    player: playerOf(known),
    setKnown(id: string) {
      setKnownId(id);
      setTyped(null);
      setTarget(null);
    },
    /** What was put for a new part goes on with that part, and with the capo it has. */
    goOn() {
      setTarget(null);
      setCapo(null);
    },
  };
}
