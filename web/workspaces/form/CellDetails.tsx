import Table from "react-bootstrap/Table";
import { useState, type ReactNode } from "react";
import {
  Bass,
  type Busy,
  Comp,
  Edit,
  type FormPass,
  type Level,
  type Part,
  Song,
  sure,
  Text,
  Voicing,
  type Way,
} from "../../../core/src/index";
import { playAsSection, toggleOut, writeBassFor } from "../../app/commands/form";
import { edit } from "../../app/store/song";
import { NumberBox } from "../../kit/NumberBox";
import { Select, type Choice } from "../../kit/Select";
import { Slider } from "../../kit/Slider";
import { Switches } from "../../kit/Switches";
import type { Cell } from "./cell";
import { DrumPattern } from "./DrumPattern";
import { Button } from "../../kit/Button";

const LEVELS: readonly Choice<Level>[] = [
  ["part", "the song"],
  ["section", "its section"],
  ["pass", "this pass"],
];

/** By what a part plays: a link, a bass line that is written for it, a drum pattern, or what is written. */
function playsBy({ role, link }: Part): "link" | "bass" | "drums" | "written" {
  if (role === "drums") return "drums";
  if (link) return "link";
  return role === "bass" ? "bass" : "written";
}

function WriteLine({ cell: { part, section, level }, shown }: { cell: Cell; shown: FormPass }) {
  const here = level === "pass";
  return (
    <Button onClick={() => void writeBassFor(part.id, shown, here)}>
      Write its line {here ? "for this pass" : `in ${section.name}`}
    </Button>
  );
}

/**
 * How one part plays in one pass: each value with the level it comes from, set for the song, the section or the pass.
 */
export function CellDetails({ song, part, pass: shown, busy }: { song: Song; part: Part; pass: FormPass; busy: Busy }) {
  const [level, setLevel] = useState<Level>("pass");
  const pass = Song.pass(song, shown.id);
  const section = Song.section(song, shown.section);
  if (!pass || !section) return null;
  const cell: Cell = { song, part, pass, section, level };
  const own = Object.keys(pass.playing?.[part.id] ?? {}).length > 0;
  const plays = playsBy(part);
  return (
    <section aria-label={`${part.name} in ${shown.name}`}>
      <h3>
        {part.name} in {shown.name}
      </h3>
      <div className="controls">
        <Button aria-pressed={busy.muted} disabled={part.muted} onClick={() => toggleOut(pass.id, part.id)}>
          {busy.muted ? "Let it play here" : "Out in this pass"}
        </Button>
        <span className="small">{busy.muted ? "silent" : `${Math.round(busy.attacks * 10) / 10} attacks a bar`}</span>
      </div>
      <div className="controls">
        <span className="muted">changes are for</span>
        <Switches label="Changes are for" value={level} choices={LEVELS} set={setLevel} />
      </div>
      <Table bsPrefix="measures" className="settings cell-settings">
        <tbody>
          {part.link && <CompRows cell={cell} />}
          {Edit.laidOutParts(song).includes(part) && <VoicingRows cell={cell} />}
          {plays === "bass" && <BassRows cell={cell} />}
          {plays === "drums" && <DrumPattern cell={cell} />}
          <Loudness cell={cell} />
        </tbody>
      </Table>
      {plays === "bass" && level !== "part" && <WriteLine cell={cell} shown={shown} />}
      {plays === "written" && <p className="small">{part.name} plays what is written.</p>}
      {own && <Button onClick={() => playAsSection(part.id, pass)}>Play as in its section</Button>}
    </section>
  );
}

/** Sets values of a way of playing at the level that is meant; null gives one back. */
function put({ part, pass, section, level }: Cell, way: Way, values: Record<string, unknown>, quiet = false): boolean {
  let where;
  if (level === "section") where = { section: section.id };
  else if (level === "pass") where = { pass: pass.id };
  else where = {};
  return edit({ do: "setPlaying", part: part.id, ...where, [way]: values }, { quiet, stored: true });
}

/** A value of a way of playing with where it comes from, and the way back where it is of the level that is meant. */
function Row({
  cell,
  title,
  way,
  name,
  children,
}: {
  cell: Cell;
  title: string;
  way: Way;
  name: string;
  children: ReactNode;
}) {
  const { part, section, pass, level } = cell;
  const owner = Song.ownerOf(part, way, name as never, { section, pass });
  return (
    <tr>
      <th scope="row">{title}</th>
      <td>{children}</td>
      <td className="small from">
        {owner === null ? "as usual" : { part: "the song’s", section: `${section.name}’s`, pass: "this pass’s" }[owner]}
        {owner === level && (
          <Button
            className="quiet"
            aria-label={`Give ${title} back`}
            title="Give it back: it is inherited again"
            onClick={() => put(cell, way, { [name]: null })}
          >
            ×
          </Button>
        )}
      </td>
    </tr>
  );
}

const KINDS: readonly Choice<string>[] = Comp.KINDS.filter((k) => k.id !== "block").map((k) => [k.id, k.title]);

/** How a part that plays the chords plays them. */
function CompRows({ cell }: { cell: Cell }) {
  const { part, section, pass } = cell;
  const comp = Song.playing(part, "comp", { section, pass });
  const set = (values: Record<string, unknown>) => put(cell, "comp", values);
  const kind = comp.kind ?? sure(part.link).kind;
  if (sure(part.link).kind === "block") return null;
  return (
    <>
      <Row cell={cell} title="plays" way="comp" name="kind">
        <Select<string>
          label={`How ${part.name} plays here`}
          value={kind}
          choices={KINDS}
          set={(k) => set({ kind: k })}
        />
      </Row>
      <Row cell={cell} title="rhythm" way="comp" name="rhythm">
        <Select<string>
          label={`Rhythm of ${part.name} here`}
          value={comp.rhythm ?? "held"}
          choices={[
            ...(comp.rhythm && !Comp.PATTERNS.some((p) => p.id === comp.rhythm)
              ? [[comp.rhythm, "Its own steps"] as const]
              : []),
            ...Comp.PATTERNS.map((p): Choice<string> => [p.id, p.title]),
          ]}
          set={(rhythm) => set({ rhythm })}
        />
      </Row>
      <Row cell={cell} title="moved by" way="comp" name="lift">
        <NumberBox
          label={`Octaves ${part.name} is moved here`}
          min={-4}
          max={4}
          value={comp.lift ?? 0}
          set={(lift) => set({ lift: lift || null })}
        />{" "}
        <span className="muted">{Text.counted(Math.abs(comp.lift ?? 0), "octave").replace(/^\d+ /, "")}</span>
      </Row>
    </>
  );
}

/** How a part lays the chords out. */
function VoicingRows({ cell }: { cell: Cell }) {
  const { part, section, pass } = cell;
  const { style, register = 0 } = Song.playing(part, "voicing", { section, pass });
  return (
    <>
      <Row cell={cell} title="voicings" way="voicing" name="style">
        <Select<string>
          label={`Voicings of ${part.name} here`}
          value={style ?? "keyboard"}
          choices={Voicing.STYLES.map((s): Choice<string> => [s.id, s.title])}
          set={(id) => put(cell, "voicing", { style: id })}
        />
      </Row>
      <Row cell={cell} title="register" way="voicing" name="register">
        <NumberBox
          label={`Semitones the register of ${part.name} is moved here`}
          min={-24}
          max={24}
          value={register}
          set={(n) => put(cell, "voicing", { register: n || null })}
        />{" "}
        <span className="muted">semitones</span>
      </Row>
    </>
  );
}

const LENGTHS: readonly Choice<string>[] = [
  ["short", "short"],
  ["usual", "as the style has them"],
  ["long", "as long as they can"],
];

/** How a bass line is written here. */
function BassRows({ cell }: { cell: Cell }) {
  const { part, section, pass } = cell;
  const values = Song.playing(part, "bass", { section, pass });
  const style = values.style ?? Bass.styleOf(part, section).id;
  return (
    <>
      <Row cell={cell} title="style" way="bass" name="style">
        <Select<string>
          label={`Bass style of ${part.name} here`}
          value={style}
          choices={Bass.STYLES.map((s): Choice<string> => [s.id, s.title])}
          set={(id) => put(cell, "bass", { style: id })}
        />
      </Row>
      <Row cell={cell} title="density" way="bass" name="density">
        <Slider
          from="few notes"
          to="many"
          label={`Density of ${part.name} here`}
          value={values.density ?? Bass.STYLES.find((s) => s.id === style)?.usual?.density ?? 0.5}
          step={0.05}
          set={(density, quiet) => put(cell, "bass", { density }, quiet)}
        />
      </Row>
      <Row cell={cell} title="notes are" way="bass" name="length">
        <Select<string>
          label={`Length of the notes of ${part.name} here`}
          value={values.length ?? "usual"}
          choices={LENGTHS}
          set={(length) => put(cell, "bass", { length })}
        />
      </Row>
    </>
  );
}

const STEPS: readonly Choice<number>[] = [-4, -3, -2, -1, 0, 1, 2, 3, 4].map((n) => [
  n,
  n === 0 ? "as written" : `${Text.counted(Math.abs(n), "step")} ${n > 0 ? "louder" : "softer"}`,
]);

/** How loud a part is here, in steps from p to mp, mf and f. */
function Loudness({ cell }: { cell: Cell }) {
  const { part, section, pass } = cell;
  return (
    <Row cell={cell} title="loudness" way="dynamics" name="steps">
      <Select<number>
        label={`Loudness of ${part.name} here`}
        title="A step leads from p to mp, mf, f"
        value={Song.playing(part, "dynamics", { section, pass }).steps ?? 0}
        choices={STEPS}
        set={(steps) => put(cell, "dynamics", { steps: steps || null })}
      />
    </Row>
  );
}
