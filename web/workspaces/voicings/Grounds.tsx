import { Check, type Part, type Profile, Song } from "../../../core/src/index";
import { setVoicing } from "../../app/commands/voicings";
import { Select } from "../../kit/Select";

/**
 * What the path depends on beside the chords, chosen here and nowhere else: whose rules it is written for, and whether
 * a bass plays below.
 */
export function Grounds({ part, song }: { part: Part; song: Song }) {
  const { school, over } = part.playing.voicing ?? {};
  const withBass = over ? over === "bass" : Song.partByRole(song, "bass") !== undefined;
  return (
    <div className="controls">
      <Select<Profile>
        label="Written for"
        text="written for"
        title={Check.PROFILE_WORDS[school ?? "band"].assumes}
        value={school ?? "band"}
        choices={Song.PROFILES.map((p) => [p, Check.PROFILE_WORDS[p].title])}
        set={(p) => setVoicing(part.id, { school: p })}
      />
      <Select<"bass" | "nothing">
        label="With or without a bass"
        value={withBass ? "bass" : "nothing"}
        choices={[
          ["bass", "over a bass"],
          ["nothing", "without a bass"],
        ]}
        title="Without a bass the part plays the lowest note of the chord itself"
        set={(o) => setVoicing(part.id, { over: o })}
      />
    </div>
  );
}
