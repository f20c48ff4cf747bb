import { type Fix, type Meter, Pitch, type Section, type Ticks } from "../../core/src/index";
import { acceptEdit, around, auditionEdit } from "../app/commands/audition";
import { HearTake } from "./HearTake";

/** A fix that can be heard and taken. */
export function FixLink({
  fix,
  id,
  section,
  meter,
  tick,
}: {
  fix: Fix;
  id: string;
  section: Section;
  meter: Meter;
  tick: Ticks;
}) {
  const { from, to } = around(section, meter, tick);
  return (
    <span className="fix">
      <span>{Pitch.typesetAll(fix.label)}</span>
      <HearTake
        id={id}
        name={fix.label}
        hear={() => auditionEdit(fix.edit, fix.label, id, { from, to })}
        take={() => acceptEdit(fix.edit)}
      />
    </span>
  );
}
