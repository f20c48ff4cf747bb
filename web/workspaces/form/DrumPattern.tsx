import { type Edit, Form, Groove, type Section, Song, sure } from "../../../core/src/index";
import { edit } from "../../app/store/song";
import { Select, type Choice } from "../../kit/Select";
import type { Cell } from "./cell";
import { Button } from "../../kit/Button";

const PAINTED = "painted";

/** What is struck when, lane by lane. */
const textOf = (lanes: Section["groove"]["lanes"]): string =>
  lanes
    .filter((l) => l.hits.length)
    .map((l) => `${l.drum}${l.hits.map((h) => `${h.start}:${h.velocity}`).join()}`)
    .sort()
    .join(" ");

const patternIn = (song: Song, section: Section, id: string) =>
  Groove.lanes(sure(Groove.PATTERNS.find((p) => p.id === id)), Song.meterOf(song, section), section.bars);

/** The pattern the drums play here, written for the pass, its section or all sections. */
export function DrumPattern({ cell: { song, pass, section, level } }: { cell: Cell }) {
  const here = sure(Form.view(song, pass.id).sections.find((s) => s.id === section.id));
  const text = textOf(here.groove.lanes);
  const playing = Groove.PATTERNS.find((p) => textOf(patternIn(song, here, p.id)) === text)?.id ?? PAINTED;
  const own = pass.own?.some((o) => o.groove) ?? false;
  const write = (id: string) => {
    const lanes = (s: Section): Edit => ({ do: "setDrums", section: s.id, lanes: patternIn(song, s, id) });
    let change: Edit;
    if (level === "pass") change = { do: "inPass", pass: pass.id, here: true, edit: lanes(section) };
    else if (level === "section") change = lanes(section);
    else change = { do: "all", label: "drums", edits: song.sections.map(lanes) };
    edit(change, { stored: true });
  };
  return (
    <tr>
      <th scope="row">pattern</th>
      <td>
        <Select<string>
          label="Drum pattern here"
          value={playing}
          choices={[
            ...(playing === PAINTED ? [[PAINTED, text ? "as it is painted" : "nothing"] as const] : []),
            ...Groove.PATTERNS.map((p): Choice<string> => [p.id, p.title]),
          ]}
          set={write}
        />
      </td>
      <td className="small from">
        {own ? "this pass’s" : `${section.name}’s`}
        {own && level === "pass" && (
          <Button
            className="quiet"
            aria-label="Give the drums back"
            title="Give it back: it is inherited again"
            onClick={() => edit({ do: "giveBack", pass: pass.id, what: "groove" })}
          >
            ×
          </Button>
        )}
      </td>
    </tr>
  );
}
