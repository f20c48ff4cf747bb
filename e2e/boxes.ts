import type { Page } from "@playwright/test";

/** Two things on a sheet that touch, or one that is cut off: "head on rest at 120, 44". */
export interface Fault {
  kind: string;
  where: string;
}

/**
 * What touches on the drawn sheets of a page. Signs are measured by their ink (a canvas tells it), texts by their
 * boxes; heads of one chord, a dot beside its own head, and two voices that share one head may meet.
 */
export function faultsOn(page: Page): Promise<Fault[]> {
  return page.evaluate(() => {
    interface Box {
      kind: string;
      left: number;
      right: number;
      top: number;
      bottom: number;
      /** Heads of one chord may touch. */
      group: Element | null;
      text: string;
    }
    const KINDS: [from: number, to: number, kind: string][] = [
      [0xe0a0, 0xe0ff, "head"],
      [0xe100, 0xe11f, "head"],
      [0xe1e7, 0xe1e7, "dot"],
      [0xe240, 0xe25f, "flag"],
      [0xe260, 0xe2ff, "accidental"],
      [0xe4a0, 0xe4bf, "articulation"],
      [0xe4e0, 0xe4ff, "rest"],
      [0xe050, 0xe07f, "clef"],
      [0xe080, 0xe09f, "time"],
      [0xe26a, 0xe26b, "bracket"],
    ];
    const context = document.createElement("canvas").getContext("2d")!;
    const inkOf = (el: SVGTextElement): Omit<Box, "kind" | "group" | "text"> => {
      const style = getComputedStyle(el);
      context.font = `${style.fontStyle} ${style.fontWeight} ${style.fontSize} ${style.fontFamily}`;
      const m = context.measureText(el.textContent ?? "");
      const [x, y] = [Number(el.getAttribute("x")), Number(el.getAttribute("y"))];
      return {
        left: x - m.actualBoundingBoxLeft,
        right: x + m.actualBoundingBoxRight,
        top: y - m.actualBoundingBoxAscent,
        bottom: y + m.actualBoundingBoxDescent,
      };
    };
    const faults: Fault[] = [];
    for (const svg of document.querySelectorAll<SVGSVGElement>(".sheet-system svg")) {
      const boxes: Box[] = [];
      for (const el of svg.querySelectorAll<SVGTextElement>("text")) {
        const text = el.textContent ?? "";
        if (!text.trim()) continue;
        const written = el.classList.contains("sheet-text");
        const code = text.charCodeAt(0);
        const sign = [...KINDS].reverse().find(([from, to]) => code >= from && code <= to)?.[2];
        const kind = written ? (el.classList[1] ?? "text") : (sign ?? "");
        if (!kind) continue;
        // Pieces of a chord symbol are raised: its box is that of the whole.
        if (written && el.querySelector("tspan")) {
          const b = el.getBBox();
          boxes.push({
            kind,
            left: b.x,
            right: b.x + b.width,
            top: b.y + 3,
            bottom: b.y + b.height - 4,
            group: el,
            text,
          });
        } else {
          const ink = inkOf(el);
          const middle = el.getAttribute("text-anchor");
          let shift: number;
          if (middle === "middle") shift = (ink.right - ink.left) / 2;
          else if (middle === "end") shift = ink.right - ink.left;
          else shift = 0;
          boxes.push({
            kind,
            ...ink,
            left: ink.left - shift,
            right: ink.right - shift,
            group: el.closest(".vf-stavenote") ?? el,
            text,
          });
        }
      }
      const size = svg.viewBox.baseVal;
      for (const b of boxes)
        if (b.left < -1 || b.top < -1 || b.right > size.width + 1 || b.bottom > size.height + 1)
          faults.push({ kind: `${b.kind} cut off`, where: `${b.left.toFixed()}, ${b.top.toFixed()} ${b.text}` });
      boxes.sort((a, b) => a.left - b.left);
      boxes.forEach((a, i) => {
        for (let j = i + 1; j < boxes.length && boxes[j]!.left < a.right; j++) {
          const b = boxes[j]!;
          const [wide, high] = [
            Math.min(a.right, b.right) - b.left,
            Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top),
          ];
          if (wide <= 1 || high <= 1) continue;
          const kinds = [a.kind, b.kind].sort();
          const own = a.group === b.group;
          const heads = kinds[0] === "head" && kinds[1] === "head";
          // Two voices on one head; chords whose heads stand one on the other.
          if (heads && (own || (Math.abs(a.left - b.left) < 1.5 && Math.abs(a.top - b.top) < 1))) continue;
          // The numbers of a meter stand on each other.
          if (kinds[0] === "time" && kinds[1] === "time") continue;
          if (own && !kinds.includes("accidental")) continue;
          if (own && kinds[0] === "accidental" && kinds[1] !== "head" && kinds[1] !== "accidental") continue;
          if (kinds.includes("flag") && !kinds.some((k) => ["syllable", "symbol", "accidental"].includes(k))) continue;
          // A courtesy sign is a sign between its brackets.
          if (
            own &&
            kinds[0] === "accidental" &&
            kinds[1] === "accidental" &&
            (a.text + b.text).match(/[\uE26A\uE26B]/)
          )
            continue;
          faults.push({
            kind: `${kinds[0]} on ${kinds[1]}`,
            where: `${a.left.toFixed()}, ${a.top.toFixed()} ${a.text} ${b.text}`,
          });
        }
      });
    }
    return faults;
  });
}

/** How many faults of each kind there are. */
export const countKinds = (faults: readonly Fault[]): Record<string, number> => {
  const counts: Record<string, number> = {};
  for (const { kind } of faults) counts[kind] = (counts[kind] ?? 0) + 1;
  return counts;
};
