import { firstOf, sure } from "../../core/src/index";
import { useEffect, type KeyboardEvent, type MouseEvent, type RefObject } from "react";
import { soundNote } from "../app/audio/sound";
import { usePlayback } from "../app/store/playback";
import { useResults } from "../app/store/results";
import type { SectionData } from "../app/store/sectionData";
import { chooseNotes, useSelection } from "../app/store/selection";
import { makeAxis } from "./axis";
import { numbered, numbersOf } from "./findings";
import { laneScale, partRange } from "./laneScale";
import { noteKey } from "./noteKeys";
import type { Placed } from "./sheet";
import type { StaffPart } from "./rows";
import { inkOf, writeText, type Ink } from "./svg";

type SheetRef = RefObject<HTMLDivElement | null>;

/** Notes are chosen on the staves as in the lanes, and the same keys change them. */
export function useStaffNotes(data: SectionData, parts: readonly StaffPart[], sheet: SheetRef, placed: Placed | null) {
  const chosen = useSelection((s) => s.notes);
  const previewing = usePlayback((s) => s.preview !== null);
  useEffect(() => {
    for (const head of sheet.current?.querySelectorAll<SVGElement>(".staff-note") ?? [])
      head.classList.toggle(
        "chosen",
        head.dataset.part === chosen.part && chosen.ids.includes(head.dataset.note ?? ""),
      );
  }, [chosen, placed, sheet]);
  const onClick = (e: MouseEvent) => {
    const { part, note } = (e.target as SVGElement).closest<SVGElement>(".staff-note")?.dataset ?? {};
    const real = data.real.parts.find((p) => p.id === part)?.notes.find((n) => n.id === note);
    if (!part || !note || !real) return;
    const kept = e.shiftKey && chosen.part === part ? chosen.ids.filter((id) => id !== note) : [];
    chooseNotes(part, [note, ...kept]);
    void soundNote(part, real.midi);
  };
  const onKeyDown = (e: KeyboardEvent) => {
    const part =
      data.real.parts.find((p) => p.id === chosen.part) ?? data.real.parts.find((p) => p.id === parts[0]?.part);
    if (!part || part.role === "drums" || e.target !== e.currentTarget) return;
    const lane = {
      data,
      part,
      axis: makeAxis(1, data.pickup, data.length),
      scale: laneScale(partRange(part, data.song), 100),
      editable: data.song.parts.find((p) => p.id === part.id)?.echoes === undefined && !previewing,
      select: (id: string, all = [id]) => chooseNotes(part.id, all),
      typeWords: () => undefined,
    };
    if (!noteKey(e, lane)) return;
    e.preventDefault();
    e.stopPropagation();
  };
  return { onClick, onKeyDown };
}

/**
 * Where a number may stand from the left end of a head, the nearest places first: at its upper right, beside, above and
 * below it.
 */
const PLACES: readonly (readonly [dx: number, dy: number])[] = [
  [16, -7],
  [-5, -7],
  [16, 16],
  [-5, 16],
  [5, -14],
  [5, 24],
  [16, -22],
  [5, -46],
  [5, 56],
];
/** Half the width and the height of a number. */
const [WIDE, HIGH] = [5, 9];

/**
 * Numbers beside the heads that something was found about, as in the lanes, where nothing else stands; of notes struck
 * together one number stands beside the highest.
 */
export function useStaffFindings(sheet: SheetRef, placed: Placed | null): void {
  const findings = useResults((s) => s.findings);
  useEffect(() => {
    const host = sheet.current;
    host?.querySelectorAll(".staff-finding").forEach((mark) => mark.remove());
    const heads = [...(host?.querySelectorAll<SVGGraphicsElement>(".staff-note") ?? [])];
    const numbers = new Map(
      [...new Set(heads.map((h) => sure(h.dataset.part)))].map((part) => [part, numbersOf(numbered(findings, part))]),
    );
    const taken = new Set<string>();
    const inks = new Map<SVGSVGElement, Ink[]>();
    for (const head of heads.reverse()) {
      const number = numbers.get(sure(head.dataset.part))?.get(sure(head.dataset.note));
      const svg = head.ownerSVGElement;
      if (number === undefined || !svg) continue;
      const glyph = head.querySelector("text");
      const [x, y] = [Number(glyph?.getAttribute("x")), Number(glyph?.getAttribute("y"))];
      const id = `${number} ${Math.round(x)} ${head.dataset.part}`;
      if (taken.has(id)) continue;
      taken.add(id);
      if (!inks.has(svg)) inks.set(svg, [...svg.querySelectorAll("text")].map(inkOf));
      const ink = sure(inks.get(svg));
      const boxes = PLACES.map(([dx, dy]): Ink => ({
        left: x + dx - WIDE,
        right: x + dx + WIDE,
        top: y + dy - HIGH,
        bottom: y + dy,
      }));
      const free = boxes.find((b) => b.top > 0 && !ink.some((i) => meet(i, b))) ?? firstOf(boxes);
      ink.push(free);
      writeText(svg, "finding-mark staff-finding", String(number), {
        x: (free.left + free.right) / 2,
        y: free.bottom,
        anchor: "middle",
      });
    }
  }, [findings, placed, sheet]);
}

const meet = (a: Ink, b: Ink): boolean => a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom;
