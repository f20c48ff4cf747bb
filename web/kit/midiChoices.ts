import type { Drum, MidiChoices, MidiContents, MidiTrack } from "../../core/src/index";

export type Use = "–" | "chords" | "melody" | "bass" | "drums" | "chords and bass";

/** A file may be opened for one thing alone. */
export type Only = "drums" | "bass" | "melody";

/** Lowest pitch that makes a line a bass. */
const BASS_BELOW = 48;

/** What a track can be used as. A drum track on another channel than the tenth is chosen by hand. */
export const usesOf = (drums: boolean, only: Only | undefined): Use[] => {
  if (only) return ["–", only];
  if (drums) return ["–", "drums"];
  return ["–", "chords", "melody", "bass", "chords and bass", "drums"];
};

/**
 * A first guess of what each track is: drums by channel, the lowest single line is the bass, the highest one the tune,
 * the rest chords.
 */
export function guessUses({ tracks }: MidiContents, only: Only | undefined): Record<string, Use> {
  const pitched = tracks.filter((t) => !t.drums);
  const lines = [...pitched.filter((t) => only || t.voices <= 2)].sort((a, b) => a.lowest - b.lowest);
  const bass = lines.find((t) => only === "bass" || t.lowest < BASS_BELOW);
  const melody = lines.filter((t) => t !== bass).sort((a, b) => b.highest - a.highest)[0];
  const useOf = (t: MidiTrack): Use => {
    if (only === "drums") return t.drums ? "drums" : "–";
    if (only === "bass") return t === bass ? "bass" : "–";
    if (only === "melody") return t === (melody ?? bass) ? "melody" : "–";
    if (t.drums) return "drums";
    if (t === bass) return "bass";
    if (t === melody && pitched.length > 1) return "melody";
    return "chords";
  };
  return Object.fromEntries(tracks.map((t) => [t.id, useOf(t)]));
}

/** What the user has set beside the uses of the tracks. */
export interface MidiSettings {
  /** First and last bar, counted from 1. */
  bars: [number, number];
  unit: MidiChoices["unit"];
  keep: { tempo: boolean; meter: boolean; key: boolean };
  drumMap: Record<number, Drum | null>;
  addDrums: boolean;
}

/** Everything that is to be imported, from what was set. */
export function midiChoices(
  { tracks }: MidiContents,
  uses: Record<string, Use>,
  { bars, unit, keep, drumMap, addDrums }: MidiSettings,
  { file, parts }: { file: string; parts: { bassPart?: string | undefined; melodyPart?: string | undefined } },
): MidiChoices {
  const one = (use: "melody" | "bass" | "drums") => {
    const track = tracks.find((t) => uses[t.id] === use || (use === "bass" && uses[t.id] === "chords and bass"));
    return track ? { [use]: track.id } : {};
  };
  return {
    chords: tracks.filter((t) => uses[t.id]?.startsWith("chords")).map((t) => t.id),
    ...one("melody"),
    ...one("bass"),
    ...one("drums"),
    bars: [bars[0] - 1, bars[1]],
    unit,
    drumMap,
    addDrums,
    ...(parts.bassPart ? { bassPart: parts.bassPart } : {}),
    ...(parts.melodyPart ? { melodyPart: parts.melodyPart } : {}),
    ...keep,
    file,
  };
}

/** What was written, in words. */
export function writtenText(
  { melody, bass, drums }: MidiChoices,
  chords: number,
  only: Only | undefined,
  section: string,
): string {
  const list = [
    ...(only ? [] : [`${chords} ${chords === 1 ? "chord" : "chords"}`]),
    ...(melody ? ["the tune"] : []),
    ...(bass ? ["the bass"] : []),
    ...(drums ? ["the drums"] : []),
  ];
  return `Written into ${section}: ${list.join(", ")}.`;
}
