import type { Edit, Section } from "../../../core/src/index";
import { edit } from "../../app/store/song";
import { Button } from "../../kit/Button";

type How = Extract<Edit, { do: "arrangeChords" }>["how"];

const MOVES: readonly ["scale" | "semitone", string][] = [
  ["scale", "along the scale"],
  ["semitone", "by semitones"],
];

/** What can be done with several chords at once. */
export function GroupTools({ section, ids }: { section: Section; ids: string[] }) {
  const chosen = section.chords.filter((c) => ids.includes(c.id));
  const end = Math.max(...chosen.map((c) => c.start + c.duration));
  const pinned = chosen.every((c) => c.pinned);
  const base = { section: section.id, chords: ids };
  const arrange = (how: How) => () => edit({ do: "arrangeChords", ...base, how });
  return (
    <div className="group-tools" role="group" aria-label={`${ids.length} chosen chords`}>
      <div>
        <span className="muted">{ids.length} chords chosen,</span>
        {MOVES.map(([by, words]) => (
          <span key={by} className="stepper" role="group" aria-label={words}>
            <span className="muted">{words}</span>
            <Button aria-label={`down ${words}`} onClick={() => edit({ do: "moveChords", ...base, by, steps: -1 })}>
              −1
            </Button>
            <Button aria-label={`up ${words}`} onClick={() => edit({ do: "moveChords", ...base, by, steps: 1 })}>
              +1
            </Button>
          </span>
        ))}
      </div>
      <div>
        <Button
          title="Writes them again right behind, over what stands there"
          onClick={() => edit({ do: "copyChords", ...base, to: end })}
        >
          repeat
        </Button>
        <Button title="Writes them again at the end of the section" onClick={() => edit({ do: "copyChords", ...base })}>
          copy to the end
        </Button>
        <Button onClick={arrange("reverse")}>reverse</Button>
        <Button disabled={ids.length !== 2} onClick={arrange("swap")}>
          swap
        </Button>
        <Button title="Each lasts half as long, and the row is played twice" onClick={arrange("double")}>
          twice as fast
        </Button>
        <Button title="Every second chord goes, the others last twice as long" onClick={arrange("halve")}>
          half as fast
        </Button>
        <Button onClick={() => edit({ do: "pinChords", ...base, pinned: !pinned })}>{pinned ? "unpin" : "pin"}</Button>
        <Button onClick={arrange("remove")}>delete</Button>
      </div>
    </div>
  );
}
