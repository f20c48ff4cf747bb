import { sure } from "../../base/list";
import { fail, ok, type Result } from "../../base/result";
import { playingOf } from "../../song/playing";
import type { Part, Section } from "../../song/schema";
import type { BassSettings } from "./settings";
import type { BassStyle } from "./style";
import { BASS_STYLES } from "./styles";

/** What is usual for a style. */
export const usualFor = (style: BassStyle): Partial<BassSettings> => ({
  pitches: style.targets.pitchClasses,
  ...style.usual,
});

/** The style a part has in a section; kick-locked where none was chosen. */
export function bassStyleOf(part: Part, section: Section | undefined): BassStyle {
  const id = playingOf(part, "bass", { section }).style;
  return BASS_STYLES.find((s) => s.id === id) ?? sure(BASS_STYLES.find((s) => s.id === "kick-locked"));
}

/** The style with an id. Errors: `bass.style`. */
export function bassStyle(id: string): Result<BassStyle> {
  const style = BASS_STYLES.find((s) => s.id === id);
  return style
    ? ok(style)
    : fail("bass.style", `No bass style is called "${id}"`, {
        hint: `Styles: ${BASS_STYLES.map((s) => s.id).join(", ")}.`,
      });
}
