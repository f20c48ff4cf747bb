import type { Part, Song } from "../../core/src/index";
import { hear, heardAs, type Hearing } from "../app/commands/hearing";
import { usePlayback } from "../app/store/playback";
import { Toggle } from "./Toggle";

interface Props {
  label: string;
  song: Song;
  part: Part["id"];
  hearings: readonly Hearing[];
}

/** Whom a part is heard with. */
export function HeardWith({ label, song, part, hearings }: Props) {
  const solo = usePlayback((s) => s.solo);
  const heard = heardAs(song, part, solo, hearings);
  return (
    <div className="controls heard" role="group" aria-label={label}>
      <span className="muted">hear it</span>
      {hearings.map((h) => (
        <Toggle key={h.id} on={h === heard} press={() => hear(song, part, h)}>
          {h.title}
        </Toggle>
      ))}
    </div>
  );
}
