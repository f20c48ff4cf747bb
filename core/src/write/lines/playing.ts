import { fail, ok, type Result } from "../../base/result";
import { playingOf } from "../../song/playing";
import type { Part, Section } from "../../song/schema";
import type { LineStyle, LineStyles } from "./kind";

type Stored = Record<string, unknown>;

/** The style that a part plays in a section; the first of its kind where none was chosen. */
export function styleOf<Settings extends object, S extends LineStyle<Settings>>(
  { id, field, styles, first }: LineStyles<Settings, S>,
  part: Part,
  section: Section | undefined,
): S {
  const stored: Stored = playingOf(part, id, { section });
  return styles.find((s) => s.id === stored[field]) ?? first;
}

/** The style with an id. Errors: `bass.style`, `counter.style`, `vocal.school`. */
export function styleCalled<Settings extends object, S extends LineStyle<Settings>>(
  { id, field, styles, words }: LineStyles<Settings, S>,
  wanted: string,
): Result<S> {
  const style = styles.find((s) => s.id === wanted);
  return style
    ? ok(style)
    : fail(`${id}.${field}`, `No ${words.one} is called "${wanted}"`, {
        hint: `${words.all}: ${styles.map((s) => s.id).join(", ")}.`,
      });
}

/** What is usual for a style, over what is usual for its kind. */
export const usualOf = <Settings extends object, S extends LineStyle<Settings>>(
  { follows }: Pick<LineStyles<Settings, S>, "follows">,
  style: S,
): Partial<Settings> => ({ ...follows?.(style), ...style.usual });

/**
 * Settings of a part in a section: what is set for the section, else for the part, else what is usual for the style,
 * else for its kind.
 */
export function settingsOf<Settings extends object, S extends LineStyle<Settings>>(
  { id, field, usual }: Pick<LineStyles<Settings, S>, "id" | "field" | "usual">,
  part: Part,
  { section, over = {} }: { section?: Section | undefined; over?: Partial<Settings> },
): Settings {
  const stored: Stored = playingOf(part, id, { section });
  const { [field]: _, ...own } = stored;
  return { ...usual, ...over, ...(own as Partial<Settings>) };
}
