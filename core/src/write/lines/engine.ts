import { firstOf, sure } from "../../base/list";
import { fail, ok, type Result } from "../../base/result";
import { factsOf, type Reader } from "../../facts/memory";
import { partOf, sectionOf } from "../../song/document";
import type { Song } from "../../song/schema";
import type { LineKind, LineRequest, LineStyle, Setting, WrittenLine } from "./kind";
import { missesOf } from "./measure";
import { settingsOf, styleCalled, styleOf, usualOf } from "./playing";
import { setApart } from "./titles";

/** How many lines are offered. */
export const OFFERED = 5;

/** A request with its surroundings, settings and style. Errors: those of the kind's styles and of its context. */
export function lineSetting<
  Settings extends object,
  Q extends LineRequest<Settings>,
  S extends LineStyle<Settings>,
  C,
  L extends WrittenLine,
>(kind: LineKind<Settings, Q, S, C, L>, read: Reader, request: Q): Result<Setting<C, S>> {
  const { song } = read;
  const part = partOf(song, request.part);
  const section = sectionOf(song, request.section);
  const asked = kind.asked(request);
  const own = part ? styleOf(kind, part, section) : kind.first;
  const style = asked === undefined ? ok(own) : styleCalled(kind, asked);
  if (!style.ok) return style;
  const over = usualOf(kind, style.value);
  const stored = part ? settingsOf(kind, part, { section, over }) : { ...kind.usual, ...over };
  const settings = { ...stored, ...request.settings };
  const ctx = kind.context(read, request, { settings, style: style.value });
  return ctx.ok ? ok({ ctx: ctx.value, style: style.value }) : ctx;
}

/** Collects lines that differ in a note, up to a number. */
function collect<L extends WrittenLine>(candidates: (found: readonly L[]) => Iterable<L | null>, most: number): L[] {
  const lines: L[] = [];
  const seen = new Set<string>();
  for (const line of candidates(lines)) {
    if (!line) continue;
    const id = JSON.stringify((line.parts ?? [line]).map((l) => l.notes.map((n) => [n.start, n.pitch, n.duration])));
    if (seen.has(id)) continue;
    seen.add(id);
    lines.push(line);
    if (lines.length >= most) break;
  }
  return lines;
}

/**
 * Writes lines of a kind into a section, those that miss the fewest aims first, each with a title of its own. Where
 * pins, chords and aims cannot all be met, the line names the conflict. Errors: as `settingOf`, what the kind lacks,
 * and `….none`.
 */
export function writeLines<
  Settings extends object,
  Q extends LineRequest<Settings>,
  S extends LineStyle<Settings>,
  C,
  L extends WrittenLine,
>(kind: LineKind<Settings, Q, S, C, L>, song: Song, request: Q): Result<L[]> {
  const resolved = lineSetting(kind, factsOf(song), request);
  if (!resolved.ok) return resolved;
  const setting = resolved.value;
  const lacks = kind.lacks(setting);
  if (lacks) return lacks;
  const lines = collect<L>((found) => kind.candidates(setting, request.seed ?? 1, found), kind.most);
  if (!lines.length) return fail(`${kind.id}.none`, kind.none.message, { hint: kind.none.hint });
  const asked = firstOf(lines);
  const misses = new Map(lines.map((l) => [l, missesOf(kind.rows(l.report, setting))]));
  const rank = (l: L) => sure(misses.get(l)) - (l === asked ? (kind.lead ?? 0) : 0);
  const ordered = lines.sort((a, b) => rank(a) - rank(b));
  const offered = (kind.unlike?.(ordered) ?? ordered).slice(0, OFFERED);
  const fewest = sure(misses.get(firstOf(offered)));
  const meetsMost = offered.some((l) => sure(misses.get(l)) > fewest);
  setApart(offered, { meetsMost, apart: (line, first) => kind.apart(line, first) });
  return ok(offered);
}
