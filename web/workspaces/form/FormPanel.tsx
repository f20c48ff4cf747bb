import { useDeferredValue, useMemo, useRef, useState } from "react";
import { type Busy, Form, type FormPass, Song, sure } from "../../../core/src/index";
import { copyPlaying, toggleOut } from "../../app/commands/form";
import { formNow } from "../../app/store/form";
import { factsNow } from "../../app/store/sectionData";
import { passInView } from "../../app/store/passes";
import { showPass, useSelection } from "../../app/store/selection";
import { useSong } from "../../app/store/song";
import { PanelHead } from "../../kit/PanelHead";
import { CellDetails } from "./CellDetails";
import "./style.scss";

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
  const dragged = useRef<{ part: string; pass: string } | null>(null);
  return (
    <div className="form-grid-scroll">
      <table className="form-grid">
        <thead>
          <tr>
            <td />
            {passes.map((p) => (
              <th key={p.id} scope="col" aria-current={p.id === current || undefined}>
                <button type="button" title={`Look at ${p.name}`} onClick={() => showPass(p.section, p.id)}>
                  {p.name}
                </button>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {song.parts.map((row) => (
            <tr key={row.id}>
              <th scope="row">
                <button
                  type="button"
                  aria-pressed={row.id === part}
                  title={`How ${row.name} plays`}
                  onClick={() => choose(row.id)}
                >
                  {row.name}
                </button>
              </th>
              {passes.map((p) => {
                const cell = sure(sure(busy.get(row.id)).get(p.id));
                const own = Object.keys(Song.pass(song, p.id)?.playing?.[row.id] ?? {}).length > 0;
                let words: string;
                if (cell.muted) words = "out";
                else if (cell.attacks) words = `${Math.round(cell.attacks * 10) / 10} attacks a bar`;
                else words = "silent";
                return (
                  <td key={p.id}>
                    <button
                      type="button"
                      className={[
                        "cell",
                        cell.muted && "out",
                        own && "own",
                        p.id === current && row.id === part && "shown",
                      ]
                        .filter(Boolean)
                        .join(" ")}
                      aria-pressed={!cell.muted}
                      aria-label={`${row.name} in ${p.name}, time ${p.time}: ${words}${own ? ", in its own way" : ""}`}
                      title={
                        `${words}${own ? ", in its own way" : ""}. Click: ` +
                        `${cell.muted ? "let it play here" : "out in this pass"}`
                      }
                      draggable
                      onDragStart={() => (dragged.current = { part: row.id, pass: p.id })}
                      onDragOver={(e) => dragged.current?.part === row.id && e.preventDefault()}
                      onDrop={() => {
                        if (dragged.current?.part === row.id) copyPlaying(row.id, dragged.current.pass, p.id);
                        dragged.current = null;
                      }}
                      onClick={() => {
                        choose(row.id);
                        showPass(p.section, p.id);
                        toggleOut(p.id, row.id);
                      }}
                    >
                      {cell.muted ? "–" : <span style={{ width: `${Math.min(100, (cell.attacks / FULL) * 100)}%` }} />}
                    </button>
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
