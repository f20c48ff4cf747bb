import { drawStaves } from "./engraving";
import { nameLines } from "./marks";
import { PLAIN_SHEET, type SheetOptions } from "./sheet";
import { type StaffPart } from "./rows";
import { widthOf } from "./svg";

/** Width of the staves on the paper, in pixels, for each size of paper: what its margins leave. */
export const PAPERS = {
  A4: { title: "A4", width: 700 },
  letter: { title: "Letter", width: 722 },
} as const;
export type Paper = keyof typeof PAPERS;

/** Room above the first staff for symbols, and where there are none. */
const [SYMBOLS, BARE] = [40, 26];
/** Room beside the names of the parts where there are several, and for the number of a bar where there is one. */
const [BRACE, NUMBER] = [22, 18];

const namesWidth = (parts: readonly StaffPart[]): number =>
  Math.max(...parts.flatMap((p) => nameLines(p.name).map((line) => widthOf(line, "name"))));

/**
 * Staves on a page are as large as players read well, smaller where many stand under each other (common practice: five
 * to eight millimetres).
 */
export const scaleFor = (staves: number): number => {
  if (staves <= 2) return 0.8;
  if (staves <= 4) return 0.66;
  if (staves <= 8) return 0.54;
  return 0.44;
};

/** Texts beside small staves are as large as beside staves of this size. */
const READ = 0.72;

/** Draws one stretch of music on a page: each line is one piece that no page break divides. */
export function drawOnPage(
  host: HTMLElement,
  parts: readonly StaffPart[],
  { paper, scale, ...options }: Partial<SheetOptions> & Pick<SheetOptions, "bars"> & { paper: Paper; scale: number },
  stop: { on: boolean },
) {
  const several = parts.length > 1;
  const text = Math.max(1, READ / scale);
  const above = options.symbols?.length ? SYMBOLS * text : BARE;
  const width = Math.floor(PAPERS[paper].width / scale);
  return drawStaves(
    host,
    parts,
    {
      ...PLAIN_SHEET,
      above,
      margin: several ? namesWidth(parts) * text + BRACE : NUMBER,
      names: several,
      width,
      scale,
      text,
      ...options,
    },
    stop,
  );
}
