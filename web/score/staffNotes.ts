import { useEffect, type KeyboardEvent, type MouseEvent, type RefObject } from "react";
import { soundNote } from "../audio/sound";
import { usePlayback } from "../store/playback";
import { useResults } from "../store/results";
import type { SectionData } from "../store/sectionData";
import { chooseNotes, useSelection } from "../store/selection";
import { makeAxis } from "./axis";
import { numbersOf } from "./findings";
import { laneScale, partRange } from "./laneScale";
import { noteKey } from "./noteKeys";
import type { Placed, StaffPart } from "./sheet";
import { writeText } from "./svg";

type SheetRef = RefObject<HTMLDivElement | null>;

/** Notes are chosen on the staves as in the lanes, and the same keys change them. */
export function useStaffNotes(data: SectionData, parts: readonly StaffPart[], sheet: SheetRef, placed: Placed | null) {
  const chosen = useSelection((s) => s.notes);
  const previewing = usePlayback((s) => s.preview !== null);
  useEffect(() => {
    for (const head of sheet.current?.querySelectorAll<SVGElement>(".staff-note") ?? [])
      head.classList.toggle("chosen", head.dataset.part === chosen.part && chosen.ids.includes(head.dataset.note ?? ""));
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
    const part = data.real.parts.find((p) => p.id === chosen.part) ?? data.real.parts.find((p) => p.id === parts[0]?.part);
    if (!part || part.role === "drums" || e.target !== e.currentTarget) return;
    const lane = {
      data,
      part,
      axis: makeAxis(1, data.pickup, data.length),
      scale: laneScale(partRange(part, data.song), 100),
      editable: !part.linked && !previewing,
      select: (id: string, all = [id]) => chooseNotes(part.id, all),
      typeWords: () => undefined,
    };
    if (!noteKey(e, lane)) return;
    e.preventDefault();
    e.stopPropagation();
  };
  return { onClick, onKeyDown };
}

/** From a head's left edge to the number at its upper right. */
const HEAD = 15;

/** Numbers beside the heads that something was found about, as in the lanes; of notes struck together one number stands beside the highest. */
export function useStaffFindings(sheet: SheetRef, placed: Placed | null): void {
  const findings = useResults((s) => s.findings);
  useEffect(() => {
    const host = sheet.current;
    host?.querySelectorAll(".staff-finding").forEach((mark) => mark.remove());
    const heads = [...(host?.querySelectorAll<SVGGraphicsElement>(".staff-note") ?? [])];
    const numbers = new Map([...new Set(heads.map((h) => h.dataset.part!))].map((part) => [part, numbersOf(findings, part)]));
    const taken = new Set<string>();
    for (const head of heads.reverse()) {
      const number = numbers.get(head.dataset.part!)?.get(head.dataset.note!);
      const svg = head.ownerSVGElement;
      if (number === undefined || !svg) continue;
      const glyph = head.querySelector("text");
      const [x, y] = [Number(glyph?.getAttribute("x")), Number(glyph?.getAttribute("y"))];
      const id = `${number} ${Math.round(x)} ${head.dataset.part}`;
      if (taken.has(id)) continue;
      taken.add(id);
      writeText(svg, "finding-mark staff-finding", String(number), { x: x + HEAD, y: Math.max(10, y - 7), anchor: "middle" });
    }
  }, [findings, placed, sheet]);
}
