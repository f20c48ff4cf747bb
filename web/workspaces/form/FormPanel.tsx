import Table from "react-bootstrap/Table";
import { DndContext, pointerWithin, useDraggable, useDroppable, type DragEndEvent } from "@dnd-kit/core";
import { useDeferredValue, useMemo, useState } from "react";
import { type Busy, Form, type FormPass, type Part, Song, sure } from "../../../core/src/index";
import { copyPlaying, toggleOut } from "../../app/commands/form";
import { formNow } from "../../app/store/form";
import { factsNow } from "../../app/store/sectionData";
import { passInView } from "../../app/store/passes";
import { showPass, useSelection } from "../../app/store/selection";
import { useSong } from "../../app/store/song";
import { useListDrag } from "../../kit/useListDrag";
import { PanelHead } from "../../kit/PanelHead";
import { CellDetails } from "./CellDetails";
import "./style.scss";
import { Button } from "../../kit/Button";

/** Attacks a bar at which a cell is full. */
const FULL = 16;

/** Who plays in which pass, how, and how busy. */
export function FormPanel() {
  // The grid follows a frame or two later, so that no edit waits for it.
  const song = useDeferredValue(sure(useSong((s) => s.song)));
  const section = useSelection((s) => s.section);
  const chosen = useSelection((s) => s.pass);
  const [part, setPart] = useState<string | null>(null);
  const passes = formNow(song);
  const current = passInView(song, chosen, section);
  const busy = useMemo(() => Form.busy(song, factsNow(song)), [song]);
  const pass = passes.find((p) => p.id === current);
  const shown = song.parts.find((p) => p.id === part) ?? song.parts.find((p) => p.role === "chords") ?? song.parts[0];
  return (
    <>
      <PanelHead title="Form" />
      <p className="small">
        Each column is a pass, each row a part; the bar says how busy it is. A click takes a part out of a pass, or lets
        it in again; dragging a cell takes its way of playing to another pass. Choose a part or a pass by its name.
      </p>
      <Grid song={song} passes={passes} busy={busy} current={current} part={shown?.id ?? null} choose={setPart} />
      {pass && shown && (
        <CellDetails
          key={`${pass.id} ${shown.id}`}
          song={song}
          part={shown}
          pass={pass}
          busy={sure(sure(busy.get(shown.id)).get(pass.id))}
        />
      )}
    </>
  );
}

interface GridProps {
  song: Song;
  passes: readonly FormPass[];
  busy: ReadonlyMap<string, ReadonlyMap<string, Busy>>;
  current: string | null;
  part: string | null;
  choose(part: string): void;
}

function Grid({ song, passes, busy, current, part, choose }: GridProps) {
  const sensors = useListDrag();
  /** A cell on another of its row: its way of playing goes to that pass. */
  const drop = ({ active, over }: DragEndEvent) => {
    const [from, to] = [active.data.current, over?.data.current] as (CellPlace | undefined)[];
    if (from && to && from.part === to.part && from.pass !== to.pass) copyPlaying(from.part, from.pass, to.pass);
  };
  return (
    <DndContext sensors={sensors} collisionDetection={pointerWithin} onDragEnd={drop}>
      <div className="form-grid-scroll">
        <Table bsPrefix="form-grid">
          <thead>
            <tr>
              <td />
              {passes.map((p) => (
                <th key={p.id} scope="col" aria-current={p.id === current || undefined}>
                  <Button title={`Look at ${p.name}`} onClick={() => showPass(p.section, p.id)}>
                    {p.name}
                  </Button>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {song.parts.map((row) => (
              <tr key={row.id}>
                <th scope="row">
                  <Button aria-pressed={row.id === part} title={`How ${row.name} plays`} onClick={() => choose(row.id)}>
                    {row.name}
                  </Button>
                </th>
                {passes.map((p) => (
                  <td key={p.id}>
                    <GridCell
                      part={row}
                      pass={p}
                      busy={sure(sure(busy.get(row.id)).get(p.id))}
                      own={Object.keys(Song.pass(song, p.id)?.playing?.[row.id] ?? {}).length > 0}
                      shown={p.id === current && row.id === part}
                      press={() => {
                        choose(row.id);
                        showPass(p.section, p.id);
                        toggleOut(p.id, row.id);
                      }}
                    />
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </Table>
      </div>
    </DndContext>
  );
}

/** Where a cell stands. */
interface CellPlace {
  part: string;
  pass: string;
}

/** What a part does in a pass, in words. */
function wordsOf({ muted, attacks }: Busy): string {
  if (muted) return "out";
  return attacks ? `${Math.round(attacks * 10) / 10} attacks a bar` : "silent";
}

/** How busy a part is in a pass: pressed to take it out or let it in, dragged to another pass of its row. */
function GridCell({
  part,
  pass,
  busy,
  own,
  shown,
  press,
}: {
  part: Part;
  pass: FormPass;
  busy: Busy;
  own: boolean;
  shown: boolean;
  press(): void;
}) {
  const id = `${part.id} ${pass.id}`;
  const data: CellPlace = { part: part.id, pass: pass.id };
  const drag = useDraggable({ id, data: { ...data } });
  const drop = useDroppable({ id, data: { ...data } });
  const over = drop.isOver && drop.active?.data.current?.part === part.id && drop.active.id !== id;
  const ref = (node: HTMLButtonElement | null) => {
    drag.setNodeRef(node);
    drop.setNodeRef(node);
  };
  const words = `${wordsOf(busy)}${own ? ", in its own way" : ""}`;
  const classes = ["cell", busy.muted && "out", own && "own", shown && "shown", over && "over"];
  return (
    <Button
      ref={ref}
      className={classes.filter(Boolean).join(" ")}
      aria-pressed={!busy.muted}
      aria-label={`${part.name} in ${pass.name}, time ${pass.time}: ${words}`}
      title={`${words}. Click: ${busy.muted ? "let it play here" : "out in this pass"}`}
      {...drag.listeners}
      onClick={press}
    >
      {busy.muted ? "–" : <span style={{ width: `${Math.min(100, (busy.attacks / FULL) * 100)}%` }} />}
    </Button>
  );
}
