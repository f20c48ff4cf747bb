import type { Page } from "@playwright/test";

/** Two things on a sheet that touch, or one that is cut off: "head on rest at 120, 44". */
export interface Fault {
  kind: string;
  where: string;
}

interface Box {
  kind: string;
  left: number;
  right: number;
  top: number;
  bottom: number;
  /** Heads of one chord may touch: what belongs together has one number. */
  group: number;
  text: string;
}

/** One line of music as it is drawn. */
interface Drawn {
  width: number;
  height: number;
  boxes: Box[];
}

/** Signs of the music font by code (SMuFL), the later before the earlier. */
const KINDS: [from: number, to: number, kind: string][] = [
  [0xe26a, 0xe26b, "bracket"],
  [0xe080, 0xe09f, "time"],
  [0xe050, 0xe07f, "clef"],
  [0xe4e0, 0xe4ff, "rest"],
  [0xe4a0, 0xe4bf, "articulation"],
  [0xe260, 0xe2ff, "accidental"],
  [0xe240, 0xe25f, "flag"],
  [0xe1e7, 0xe1e7, "dot"],
  [0xe100, 0xe11f, "head"],
  [0xe0a0, 0xe0ff, "head"],
];

/**
 * What touches on the drawn sheets of a page. Signs are measured by their ink (a canvas tells it), texts by their
 * boxes; heads of one chord, a dot beside its own head, and two voices that share one head may meet.
 */
export async function faultsOn(page: Page): Promise<Fault[]> {
  const drawn = await page.evaluate(measured, KINDS);
  return drawn.flatMap((line) => [...cutOff(line), ...touching(line)]);
}

/** Runs inside the page. */
function measured(kinds: typeof KINDS): Drawn[] {
  const context = document.createElement("canvas").getContext("2d")!;
  const groups: Element[] = [];
  const numberOf = (el: Element): number => {
    if (!groups.includes(el)) groups.push(el);
    return groups.indexOf(el);
  };
  /** Pieces of a chord symbol are raised: its box is that of the whole. */
  const boxOfWhole = (el: SVGTextElement) => {
    const b = el.getBBox();
    return { left: b.x, right: b.x + b.width, top: b.y + 3, bottom: b.y + b.height - 4, group: numberOf(el) };
  };
  const inkOf = (el: SVGTextElement) => {
    const style = getComputedStyle(el);
    context.font = `${style.fontStyle} ${style.fontWeight} ${style.fontSize} ${style.fontFamily}`;
    const m = context.measureText(el.textContent ?? "");
    const share: Record<string, number> = { middle: 0.5, end: 1 };
    const left = Number(el.getAttribute("x")) - m.actualBoundingBoxLeft;
    const right = Number(el.getAttribute("x")) + m.actualBoundingBoxRight;
    const shift = (right - left) * (share[el.getAttribute("text-anchor") ?? ""] ?? 0);
    const y = Number(el.getAttribute("y"));
    return {
      ...{ left: left - shift, right: right - shift },
      ...{ top: y - m.actualBoundingBoxAscent, bottom: y + m.actualBoundingBoxDescent },
      group: numberOf(el.closest(".vf-stavenote") ?? el),
    };
  };
  return [...document.querySelectorAll<SVGSVGElement>(".sheet-system svg")].map((svg) => {
    const boxes = [...svg.querySelectorAll<SVGTextElement>("text")].flatMap((el): Box[] => {
      const text = el.textContent ?? "";
      const code = text.charCodeAt(0);
      const written = el.classList.contains("sheet-text");
      const sign = kinds.find(([from, to]) => code >= from && code <= to)?.[2] ?? "";
      const kind = written ? (el.classList[1] ?? "text") : sign;
      if (!text.trim() || !kind) return [];
      return [{ kind, text, ...(written && el.querySelector("tspan") ? boxOfWhole(el) : inkOf(el)) }];
    });
    const { width, height } = svg.viewBox.baseVal;
    return { width, height, boxes: boxes.sort((a, b) => a.left - b.left) };
  });
}

const cutOff = ({ width, height, boxes }: Drawn): Fault[] =>
  boxes
    .filter((b) => b.left < -1 || b.top < -1 || b.right > width + 1 || b.bottom > height + 1)
    .map((b) => ({ kind: `${b.kind} cut off`, where: `${b.left.toFixed()}, ${b.top.toFixed()} ${b.text}` }));

function touching({ boxes }: Drawn): Fault[] {
  const faults: Fault[] = [];
  for (const [i, a] of boxes.entries())
    for (const b of boxes.slice(i + 1)) {
      if (b.left >= a.right) break;
      const wide = Math.min(a.right, b.right) - b.left;
      const high = Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top);
      if (wide <= 1 || high <= 1 || mayMeet(a, b)) continue;
      const kinds = [a.kind, b.kind].sort();
      faults.push({
        kind: `${kinds[0]} on ${kinds[1]}`,
        where: `${a.left.toFixed()}, ${a.top.toFixed()} ${a.text} ${b.text}`,
      });
    }
  return faults;
}

function mayMeet(a: Box, b: Box): boolean {
  const kinds = [a.kind, b.kind].sort();
  const own = a.group === b.group;
  // Two voices on one head; chords whose heads stand one on the other.
  const shared = Math.abs(a.left - b.left) < 1.5 && Math.abs(a.top - b.top) < 1;
  if (kinds.every((k) => k === "head")) return own || shared;
  // The numbers of a meter stand on each other.
  if (kinds.every((k) => k === "time")) return true;
  if (kinds.includes("flag") && !kinds.some((k) => ["syllable", "symbol", "accidental"].includes(k))) return true;
  if (!own) return false;
  // Inside a chord a sign may not touch a head or another sign, but for the brackets of a courtesy sign.
  if (kinds[0] !== "accidental" || !["head", "accidental"].includes(kinds[1] ?? "")) return true;
  return kinds[1] === "accidental" && /[\uE26A\uE26B]/.test(a.text + b.text);
}
