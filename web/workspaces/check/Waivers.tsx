import { Check, Song, type Waiver } from "../../../core/src/index";
import { edit } from "../../app/store/song";
import { Button } from "../../kit/Button";

/** What a waiver holds for: a place, a section, parts, or the whole song. */
function where(song: Song, { sectionId, parts, about }: Waiver): string {
  const names = parts.map((id) => song.parts.find((p) => p.id === id)?.name.split(",")[0] ?? id).join(", ");
  const section = sectionId === undefined ? "the whole song" : (Song.section(song, sectionId)?.name ?? sectionId);
  return [names || "everyone", section, about ? "one place" : ""].filter(Boolean).join(", ");
}

/** Everything that is left with a reason, in all sections; each can be lifted. */
export function Waivers({ song }: { song: Song }) {
  return (
    <ul className="plain-list small waivers">
      {song.waivers.map((w) => (
        <li key={w.id}>
          <span>
            <b>{Check.RULES.find((r) => r.id === w.rule)?.title ?? w.rule}</b>
            {`: ${where(song, w)}. “${w.reason}”`}
          </span>
          <Button onClick={() => edit({ do: "unwaive", waiver: w.id })}>Judge it again</Button>
        </li>
      ))}
    </ul>
  );
}
