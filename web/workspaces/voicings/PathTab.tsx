import {
  Chord,
  Form,
  Instrument,
  type Part,
  Pitch,
  type PlayingOf,
  type SectionVoicing,
  Song,
  sure,
  type TopShape,
  Voicing,
} from "../../../core/src/index";
import { moveRegister, setVoicing, soundWhenVoiced, stylesFor, voicingStyleOf } from "../../app/commands/voicings";
import { openTab } from "../../app/store/preferences";
import { useResults } from "../../app/store/results";
import type { SectionData } from "../../app/store/sectionData";
import { chooseChord } from "../../app/store/selection";
import { edit } from "../../app/store/song";
import { Check } from "../../kit/Check";
import { LaidOutAnew } from "../../kit/LaidOutAnew";
import { Select, type Choice } from "../../kit/Select";
import { Grounds } from "./Grounds";
import { Neck } from "./Neck";
import { OtherWays } from "./OtherWays";
import { Weights } from "./Weights";
import { Button } from "../../kit/Button";

interface Props {
  data: SectionData;
  part: Part;
}

/** How a part is laid out through the section: block chords under a tune, or the cheapest path. */
export function PathTab({ data, part }: Props) {
  return part.link?.kind === "block" ? <Block data={data} part={part} /> : <Path data={data} part={part} />;
}

function Block({ data, part }: Props) {
  return (
    <>
      <p className="small">
        Every note of the tune has a chord of its own beneath it. It follows the tune and the chords until you detach it
        under Parts.
      </p>
      <p className="controls">
        <TopPart data={data} part={part} words="tune" />
      </p>
      <Check on={part.playing.voicing?.voices === 5} set={(on) => setVoicing(part.id, { voices: on ? 5 : 4 })}>
        double the tune an octave lower
      </Check>
    </>
  );
}

function Path({ data, part }: Props) {
  const voicing = useResults((s) => s.voicing[part.id]);
  const held = Instrument.of(part.instrument, data.song).held.by;
  const asked = part.playing.voicing ?? {};
  return (
    <>
      <Found voicing={voicing} what={held === "frets" ? "shapes" : "layouts"} />
      <LaidOutAnew data={data} part={part} />
      <Style data={data} part={part} voicing={voicing} />
      <Grounds part={part} song={data.song} />
      <Hands data={data} part={part} asked={asked} />
      {held === "frets" && <Neck data={data} part={part} />}
      <h3>Top line</h3>
      <div className="controls">
        <Select
          label="Shape of the top line"
          text="goes"
          value={asked.topShape ?? "smooth"}
          choices={Object.entries(Voicing.TOP_SHAPES) as [TopShape, string][]}
          set={(topShape) => setVoicing(part.id, { topShape })}
        />
        <TopPart data={data} part={part} words="follows" />
      </div>
      <Tops data={data} part={part} />
      {(part.playing.comp?.rhythm ?? "held") === "held" && (
        <p className="small">
          Threads in the lane: straight where a voice stays, dotted by step, dashed with its semitones where it leaps,
          ∥5 and ∥8 where two go in parallel.
        </p>
      )}
      <OtherWays data={data} part={part} />
      <Pinned data={data} part={part} />
      <h3>What counts</h3>
      <Weights part={part} />
    </>
  );
}

function Found({ voicing, what }: { voicing: SectionVoicing | undefined; what: string }) {
  if (!voicing?.ids.length) return <p className="small">Type a chord line in Chords; it is voiced at once.</p>;
  const [fewest, most] = [Math.min(...voicing.candidates), Math.max(...voicing.candidates)];
  return (
    <p className="small">
      Each chord has {fewest}–{most} {what}; the ones chosen move <b>{voicing.motion}</b> semitones in all.
    </p>
  );
}

/** Style and register, and the chords the style does not suit. */
function Style({ data, part, voicing }: Props & { voicing: SectionVoicing | undefined }) {
  const style = voicingStyleOf(data.song, part);
  const register = part.playing.voicing?.register ?? 0;
  const fallbacks = voicing?.fallbacks ?? [];
  const names = [
    ...new Set(data.section.chords.filter((c) => fallbacks.includes(c.id)).map((c) => Pitch.typeset(c.symbol))),
  ];
  return (
    <>
      <div className="controls">
        <Select
          label="Style"
          title="V, Shift V"
          value={style.id}
          choices={stylesFor(data.song, part).map((s) => [s.id, s.title])}
          set={(id) => setVoicing(part.id, { style: id })}
        />
        <span className="stepper" role="group" aria-label="Register">
          <Button title="Lower (Shift R)" onClick={() => moveRegister(-1)}>
            lower
          </Button>
          <span className="tabular">{register > 0 ? `+${register}` : register}</span>
          <Button title="Higher (R)" onClick={() => moveRegister(1)}>
            higher
          </Button>
        </span>
      </div>
      <p className="small">{style.explanation}</p>
      {names.length > 0 && (
        <p className="small" role="status">
          The style does not suit {names.join(", ")}: {fallbacks.length === 1 ? "it is" : "they are"} laid out freely
          instead.
        </p>
      )}
    </>
  );
}

const SPANS: readonly Choice<number>[] = [
  [12, "an octave"],
  [14, "a ninth"],
  [16, "a tenth"],
  [17, "an eleventh"],
];

/** The loop, how many voices, and what hands can reach. */
function Hands({ data, part, asked }: Props & { asked: PlayingOf<"voicing"> }) {
  const { held, polyphony } = Instrument.of(part.instrument, data.song);
  const style = voicingStyleOf(data.song, part);
  const way = Form.wayOn(data.song, data.section.id);
  const frets = held.by === "frets";
  return (
    <div className="controls">
      <Check
        on={part.link?.loop ?? false}
        title={
          way
            ? "The last chord is led into the first one of what follows in the form"
            : "The last chord is led back into the first"
        }
        set={(loop) => edit({ do: "setPart", part: part.id, loop })}
      >
        {way ? `leads on to ${way.into}` : "leads back to the beginning"}
      </Check>
      {!style.fixed && polyphony > 1 && (
        <Select
          label={frets ? "Strings wished for" : "Number of voices"}
          text={frets ? "strings wished for" : "voices"}
          value={asked.voices ?? Voicing.usualVoices(style, { held })}
          choices={[2, 3, 4, 5, 6].filter((n) => n <= polyphony).map((n) => [n, String(n)])}
          set={(voices) => setVoicing(part.id, { voices })}
        />
      )}
      {held.by === "hands" && (
        <>
          <Select
            label="Hands"
            text="hands"
            value={asked.hands ?? 2}
            choices={[
              [1, "1"],
              [2, "2"],
            ]}
            set={(hands) => setVoicing(part.id, { hands: hands === 1 ? 1 : 2 })}
          />
          <Select
            label="One hand reaches"
            text="one reaches"
            value={asked.span ?? held.span}
            choices={SPANS}
            set={(span) => setVoicing(part.id, { span })}
          />
        </>
      )}
    </div>
  );
}

/** The part whose notes the top follows. */
function TopPart({ data, part, words }: Props & { words: string }) {
  const tunes = data.song.parts.filter((p) => p.id !== part.id && Song.isWritten(p) && p.role !== "bass");
  const { top, ...link } = sure(part.link);
  return (
    <Select
      label="The top follows"
      text={words}
      value={top ?? ""}
      choices={[["", "nothing"], ...tunes.map((p): Choice<string> => [p.id, p.name])]}
      set={(id) => {
        soundWhenVoiced(part.id);
        edit({ do: "setLink", part: part.id, link: id ? { ...link, top: id } : link });
      }}
    />
  );
}

/** Which wanted top notes were met, and why some were not. */
function Tops({ data, part }: Props) {
  const voicing = useResults((s) => s.voicing[part.id]);
  const tops = Object.entries(voicing?.tops ?? {});
  const missed = Object.entries(voicing?.bottoms ?? {});
  if (!tops.length && !missed.length) return null;
  const nameOf = (id: string) => Pitch.typeset(data.section.chords.find((c) => c.id === id)?.symbol ?? "");
  const over = tops.filter(([, t]) => t.met === "over");
  const unmet: [id: string, words: string][] = [
    ...tops
      .filter(([, t]) => t.met === "no")
      .map(([id, t]): [string, string] => [id, `${Pitch.typeset(t.wanted)} over ${nameOf(id)}: ${t.why}`]),
    ...missed.map(([id, p]): [string, string] => [id, `${Pitch.typeset(p)} under ${nameOf(id)} cannot be had`]),
  ];
  const laidOver = over.map(([id, t]) => `${Pitch.typeset(t.wanted)} over ${nameOf(id)}`).join(", ");
  return (
    <div role="status" className="small">
      {tops.length > 0 && (
        <p className="flush">
          {tops.filter(([, t]) => t.met !== "no").length} of {tops.length} wanted top notes are met
          {over.length > 0 && `, ${over.length} of them laid over the chord: ${laidOver}`}.
        </p>
      )}
      {unmet.map(([id, words]) => (
        <p key={id} className="flush problem">
          {words}{" "}
          <Button
            onClick={() => {
              chooseChord(id);
              openTab("voicings", "chord");
            }}
          >
            show
          </Button>
        </p>
      ))}
    </div>
  );
}

/** How many layouts are pinned, and all let go at once. */
function Pinned({ data: { section }, part }: Props) {
  const events = section.chords.filter((c) => Chord.of(c.symbol));
  const pinned = events.filter((e) => e.voicings?.[part.id]?.pinned);
  if (!pinned.length) return null;
  return (
    <p className="controls">
      <span className="small">
        {pinned.length} of {events.length} chords pinned
      </span>
      <Button
        onClick={() =>
          edit({
            do: "all",
            label: "unpin",
            edits: pinned.map((e) => ({
              do: "pinVoicing",
              section: section.id,
              part: part.id,
              chord: e.id,
              pitches: null,
            })),
          })
        }
      >
        Let all go
      </Button>
    </p>
  );
}
