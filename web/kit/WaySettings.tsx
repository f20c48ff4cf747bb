import { type Edit, Instrument, Pitch, type Song } from "../../core/src/index";
import { edit, say, storedSong } from "../app/store/song";
import { InPlace } from "./InPlace";
import type { PartProps } from "./partProps";
import { typedPitch } from "./texts";
import { Button } from "./Button";

/** Ways of writing a line that a section can have settings of its own for. */
type LineWay = "bass" | "counter" | "vocal";

/** Lowest and highest note: set here, for the part, or the instrument's comfortable ones. */
export function WayRange({
  data,
  part,
  low,
  high,
  put,
}: PartProps & { low: string; high: string; put(values: { low?: string; high?: string }): boolean }) {
  const usual = Instrument.of(part.instrument, data.song).comfortable;
  const commit = (name: "low" | "high") => (text: string) => {
    const read = typedPitch(text, say);
    return read !== null && put({ [name]: read });
  };
  return (
    <>
      <InPlace label="Lowest note" value={Pitch.typeset(low || (part.range?.[0] ?? usual[0]))} commit={commit("low")} />{" "}
      –{" "}
      <InPlace
        label="Highest note"
        value={Pitch.typeset(high || (part.range?.[1] ?? usual[1]))}
        commit={commit("high")}
      />
    </>
  );
}

/** Values as they are usual again. */
const cleared = (playing: object): Record<string, null> =>
  Object.fromEntries(Object.keys(playing).map((name) => [name, null]));

/** The edit that makes a section's own way of playing that of all sections. */
function everywhere(song: Song, part: string, way: LineWay, { own, chosen }: { own: object; chosen: object }): Edit {
  const there = song.sections.flatMap((s): Edit[] => {
    const playing = s.playing?.[part]?.[way];
    return playing ? [{ do: "setPlaying", part, section: s.id, [way]: cleared(playing) }] : [];
  });
  return {
    do: "all",
    label: "in every section",
    edits: [...there, { do: "setPlaying", part, [way]: { ...own, ...chosen } }],
  };
}

/** Settings of a section given back, or made those of all. */
/** `chosen` is the style or school as it stands: it stays when settings are given back. */
export function WayButtons({ data, part, way, chosen }: PartProps & { way: LineWay; chosen: Record<string, string> }) {
  const own = Object.fromEntries(
    Object.entries(data.section.playing?.[part.id]?.[way] ?? {}).filter(([name]) => !(name in chosen)),
  );
  return (
    <p className="controls">
      <Button
        disabled={!Object.keys(own).length}
        onClick={() => edit({ do: "setPlaying", part: part.id, section: data.section.id, [way]: cleared(own) })}
      >
        Back to the usual
      </Button>
      {data.song.sections.length > 1 && (
        <Button onClick={() => edit(everywhere(storedSong(), part.id, way, { own, chosen }), { stored: true })}>
          Use in every section
        </Button>
      )}
    </p>
  );
}
