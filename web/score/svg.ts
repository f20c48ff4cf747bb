import { symbolPieces } from "../kit/symbolPieces";

const SVG = "http://www.w3.org/2000/svg";

function element<K extends keyof SVGElementTagNameMap>(
  name: K,
  cls: string,
  attributes: Record<string, number | string>,
): SVGElementTagNameMap[K] {
  const made = document.createElementNS(SVG, name);
  made.setAttribute("class", cls);
  for (const [key, value] of Object.entries(attributes))
    made.setAttribute(key, typeof value === "number" ? value.toFixed(1) : value);
  return made;
}

/** Writes a text into a drawing, its left end at x (or its middle, or its right end), its baseline at y. */
export function writeText(
  svg: SVGElement,
  kind: string,
  text: string,
  at: { x: number; y: number; anchor?: "middle" | "end" },
): void {
  const made = element("text", `sheet-text ${kind}`, {
    x: at.x,
    y: at.y,
    ...(at.anchor ? { "text-anchor": at.anchor } : {}),
  });
  made.textContent = text;
  svg.appendChild(made);
}

export function writeLine(svg: SVGElement, kind: string, points: readonly (readonly [x: number, y: number])[]): void {
  svg.appendChild(
    element("path", `sheet-line ${kind}`, {
      d: points.map(([x, y], i) => `${i ? "L" : "M"}${x.toFixed(1)} ${y.toFixed(1)}`).join(""),
      fill: "none",
    }),
  );
}

/** Sizes of what is written into a sheet, in its own pixels. */
export const FONTS = {
  syllable: "15px 'Source Serif 4'",
  symbol: "600 17px 'Source Serif 4'",
  name: "13px 'Source Serif 4'",
  raised: "600 12px 'Source Serif 4'",
} as const;

let context: CanvasRenderingContext2D | null = null;
/** How wide a text is in one of the fonts. */
export function widthOf(text: string, font: keyof typeof FONTS): number {
  context ??= document.createElement("canvas").getContext("2d");
  if (!context) return text.length * 8;
  context.font = FONTS[font];
  return context.measureText(text).width;
}

/** A chord symbol in its pieces, as over the lanes. */
export function writeSymbol(svg: SVGElement, symbol: string, at: { x: number; y: number }): void {
  const { root, raised, slash } = symbolPieces(symbol);
  const made = element("text", "sheet-text symbol", { x: at.x, y: at.y });
  const piece = (text: string, dy: number, cls: string) => {
    if (!text) return;
    const span = element("tspan", cls, { dy });
    span.textContent = text;
    made.appendChild(span);
  };
  piece(root, 0, "root");
  piece(raised, -5, "raised");
  piece(slash, raised ? 5 : 0, "slash");
  svg.appendChild(made);
}

export function symbolWidth(symbol: string): number {
  const { root, raised, slash } = symbolPieces(symbol);
  return widthOf(root + slash, "symbol") + (raised ? widthOf(raised, "raised") + 1 : 0);
}

export interface Ink {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

/** What a text of a drawing covers with ink: a sign of a music font is much smaller than its line. */
export function inkOf(text: SVGTextElement): Ink {
  const [x, y] = [Number(text.getAttribute("x")), Number(text.getAttribute("y"))];
  context ??= document.createElement("canvas").getContext("2d");
  if (!context) return { left: x, right: x, top: y, bottom: y };
  const { fontStyle, fontWeight, fontSize, fontFamily } = getComputedStyle(text);
  context.font = `${fontStyle} ${fontWeight} ${fontSize} ${fontFamily}`;
  const m = context.measureText(text.textContent ?? "");
  let shift: number;
  if (text.getAttribute("text-anchor") === "middle") shift = m.width / 2;
  else if (text.getAttribute("text-anchor") === "end") shift = m.width;
  else shift = 0;
  return {
    left: x - m.actualBoundingBoxLeft - shift,
    right: x + m.actualBoundingBoxRight - shift,
    top: y - m.actualBoundingBoxAscent,
    bottom: y + m.actualBoundingBoxDescent,
  };
}
