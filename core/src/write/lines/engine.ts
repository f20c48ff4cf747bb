import { firstOf, sure } from "../../base/list";
import { fail, ok, type Result } from "../../base/result";
import type { Steps } from "../../base/steps";
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

const notesText = (line: WrittenLine): string =>
  JSON.stringify((line.parts ?? [line]).map((l) => l.notes.map((n) => [n.start, n.pitch, n.duration])));

/** Collects lines that differ in a note, up to a number; tells each attempt. */
function* collect<L extends WrittenLine>(
  candidates: (found: readonly L[]) => Iterable<L | null>,
  most: number,
): Steps<readonly L[], L[]> {
  const lines: L[] = [];
  const seen = new Set<string>();
  for (const line of candidates(lines)) {
    if (line && !seen.has(notesText(line))) {
      seen.add(notesText(line));
      lines.push({ ...line, found: lines.length });
    }
    if (lines.length >= most || (yield lines) === false) break;
  }
  return lines;
}

/**
 * Writes lines of a kind into a section, those that miss the fewest aims first, each with a title of its own. Where
 * pins, chords and aims cannot all be met, the line names the conflict. What it tells on its way are lines that will be
 * offered unless better ones come, in the order in which they are found: at every step those told before, and perhaps
 * more. Errors: as `lineSetting`, what the kind lacks, and `….none`.
 */
export function* lineSteps<
  Settings extends object,
  Q extends LineRequest<Settings>,
  S extends LineStyle<Settings>,
  C,
  L extends WrittenLine,
>(kind: LineKind<Settings, Q, S, C, L>, song: Song, request: Q): Steps<L[], Result<L[]>> {
  const resolved = lineSetting(kind, factsOf(song), request);
  if (!resolved.ok) return resolved;
  const setting = resolved.value;
  const lacks = kind.lacks(setting);
  if (lacks) return lacks;
  const unlike = (lines: readonly L[]) => (kind.unlike?.(lines) ?? lines).slice(0, OFFERED);
  const apart = (line: L, first: L) => kind.apart(line, first);
  const attempts = collect<L>((found) => kind.candidates(setting, request.seed ?? 1, found), kind.most);
  let goOn: boolean | undefined;
  let now = attempts.next();
  while (!now.done) {
    goOn = yield setApart(unlike(now.value), { meetsMost: false, apart });
    now = attempts.next(goOn);
  }
  const lines = now.value;
  if (!lines.length && goOn === false) return ok([]);
  if (!lines.length) return fail(`${kind.id}.none`, kind.none.message, { hint: kind.none.hint });
  const asked = firstOf(lines);
  const misses = new Map(lines.map((l) => [l, missesOf(kind.rows(l.report, setting))]));
  const rank = (l: L) => sure(misses.get(l)) - (l === asked ? (kind.lead ?? 0) : 0);
  const offered = unlike(lines.toSorted((a, b) => rank(a) - rank(b)));
  const fewest = sure(misses.get(firstOf(offered)));
  const meetsMost = offered.some((l) => sure(misses.get(l)) > fewest);
  return ok(setApart(offered, { meetsMost, apart }));
}
