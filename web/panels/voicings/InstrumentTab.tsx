import { useEffect, useState } from "react";
import {
  CLEFS,
  instrumentOf,
  INSTRUMENTS,
  instrumentsFor,
  parseTuning,
  SOUNDS,
  typeset,
  type Clef,
  type Instrument,
  type OwnInstrument,
  type Part,
  type SoundKind,
} from "../../../core/src/index";
import type { ScoreData } from "../../score/data";
import { useSong } from "../../store/song";
import { InPlace } from "../../ui/InPlace";
import { typedPitch } from "../../ui/texts";
import { nextInstrument, soundWhenVoiced } from "./act";

const CLEF_WORDS: Record<Clef, string> = { treble: "treble", alto: "alto", tenor: "tenor", bass: "bass", grand: "two staves" };

const heldWords = (i: Instrument): string =>
  i.held.by === "hands"
    ? "two hands on keys"
    : i.held.by === "frets"
      ? `${i.held.strings.length} strings, ${i.held.frets} frets`
      : i.polyphony === 1
        ? "one note at a time"
        : "note by note";

const transposes = (n: number): string =>
  n === 0
    ? "sounds as written"
    : n === -12
      ? "sounds an octave lower than written"
      : `sounds ${Math.abs(n)} semitones ${n < 0 ? "lower" : "higher"} than written`;

/** Who plays a part; every value can be changed for this song. */
export function InstrumentTab({ data, part }: { data: ScoreData; part: Part }) {
  const { edit, say } = useSong();
  const { song } = data;
  const instrument = instrumentOf(part.instrument, song);
  const known = INSTRUMENTS.find((i) => i.id === instrument.id);
  const own = song.instruments?.some((i) => i.id === instrument.id) ?? false;
  const [asked, setChanging] = useState(false);
  const changing = asked || own;
  useEffect(() => setChanging(false), [instrument.id]);
  /** The instrument as it is stored now: what is drawn may be a moment behind. */
  const stored = (): Instrument => {
    const now = useSong.getState().song ?? song;
    return instrumentOf(now.parts.find((p) => p.id === part.id)?.instrument ?? part.instrument, now);
  };
  const put = (change: Partial<Instrument>): boolean => {
    const copy = structuredClone({ ...stored(), ...change, source: "this song's own values" }) as OwnInstrument;
    soundWhenVoiced(part.id);
    return edit({ do: "setInstrument", instrument: copy });
  };
  const ends = (field: "range" | "comfortable", label: string) => (
    <tr>
      <th scope="row">{label}</th>
      <td>
        {changing
          ? ([0, 1] as const).map((end) => (
              <InPlace
                key={end}
                label={`${label}, ${end ? "highest" : "lowest"} note`}
                value={typeset(instrument[field][end])}
                commit={(text) => {
                  const name = typedPitch(text, say);
                  if (!name) return false;
                  const range: [string, string] = [...stored()[field]];
                  range[end] = name;
                  return put({ [field]: range });
                }}
              />
            ))
          : instrument[field].map(typeset).join(" – ")}
      </td>
    </tr>
  );
  const numberField = (label: string, value: number, take: (n: number) => boolean) => (
    <InPlace label={label} value={String(value)} commit={(text) => Number.isFinite(Number(text)) && take(Number(text))} />
  );
  const addOwn = () => {
    const taken = new Set(instrumentsFor(song).map((i) => i.id));
    let id = "own1";
    for (let n = 2; taken.has(id); n++) id = `own${n}`;
    const made = {
      ...structuredClone(instrument),
      id,
      title: `${instrument.title}, my own`,
      source: "this song's own values",
    } as OwnInstrument;
    edit({
      do: "all",
      label: "instrument",
      edits: [
        { do: "setInstrument", instrument: made },
        { do: "setPart", part: part.id, instrument: id },
      ],
    });
  };
  return (
    <>
      <div className="controls">
        <select
          aria-label="Instrument"
          title="O, Shift O"
          value={instrument.id}
          onChange={(e) => {
            soundWhenVoiced(part.id);
            edit({ do: "setPart", part: part.id, instrument: e.target.value });
          }}
        >
          {instrumentsFor(song)
            .filter((i) => i.roles.includes(part.role))
            .map((i) => (
              <option key={i.id} value={i.id}>
                {i.title}
              </option>
            ))}
        </select>
        <span className="stepper">
          <button type="button" aria-label="Instrument before" onClick={() => nextInstrument(-1)}>
            ‹
          </button>
          <button type="button" aria-label="Next instrument" onClick={() => nextInstrument(1)}>
            ›
          </button>
        </span>
      </div>
      <table className="measures facts">
        <tbody>
          {changing && (
            <tr>
              <th scope="row">name</th>
              <td>
                <InPlace label="Name of the instrument" value={instrument.title} commit={(title) => put({ title })} />
              </td>
            </tr>
          )}
          {ends("range", "sounding range")}
          {ends("comfortable", "comfortable")}
          <tr>
            <th scope="row">clef</th>
            <td>
              {changing ? (
                <select aria-label="Clef" value={instrument.clef} onChange={(e) => put({ clef: e.target.value as Clef })}>
                  {CLEFS.map((c) => (
                    <option key={c} value={c}>
                      {CLEF_WORDS[c]}
                    </option>
                  ))}
                </select>
              ) : (
                CLEF_WORDS[instrument.clef]
              )}
            </td>
          </tr>
          <tr>
            <th scope="row">transposition</th>
            <td>
              {changing
                ? numberField("Sounding less written, in semitones", instrument.transposition, (transposition) => put({ transposition }))
                : transposes(instrument.transposition)}
            </td>
          </tr>
          <tr>
            <th scope="row">notes at once</th>
            <td>
              {changing ? numberField("Notes at once", instrument.polyphony, (polyphony) => put({ polyphony })) : instrument.polyphony}
            </td>
          </tr>
          <tr>
            <th scope="row">held</th>
            <td>{heldWords(instrument)}</td>
          </tr>
          {instrument.held.by === "hands" && changing && (
            <tr>
              <th scope="row">one hand reaches</th>
              <td>
                {numberField("Span of one hand in semitones", instrument.held.span, (span) => put({ held: { by: "hands", span } }))}{" "}
                semitones
              </td>
            </tr>
          )}
          {instrument.held.by === "frets" && (
            <>
              <tr>
                <th scope="row">strings</th>
                <td>
                  {changing ? (
                    <InPlace
                      label="Open strings, lowest drawn first"
                      value={instrument.held.strings.join(" ")}
                      commit={(text) => {
                        if (instrument.held.by !== "frets") return false;
                        const parsed = parseTuning(text, instrument.held.strings);
                        if (!parsed.ok) {
                          say(parsed.error);
                          return false;
                        }
                        return put({ held: { ...instrument.held, strings: parsed.value } });
                      }}
                    />
                  ) : (
                    instrument.held.strings.map(typeset).join(" ")
                  )}
                </td>
              </tr>
              <tr>
                <th scope="row">string length</th>
                <td>
                  {changing
                    ? numberField(
                        "String length in millimetres",
                        instrument.held.scale,
                        (scale) => instrument.held.by === "frets" && put({ held: { ...instrument.held, scale } }),
                      )
                    : instrument.held.scale}{" "}
                  mm
                </td>
              </tr>
            </>
          )}
          {changing && (
            <tr>
              <th scope="row">sound</th>
              <td>
                <select aria-label="Sound" value={instrument.sound} onChange={(e) => put({ sound: e.target.value as SoundKind })}>
                  {SOUNDS.filter((s) => s !== "drums").map((s) => (
                    <option key={s}>{s}</option>
                  ))}
                </select>
              </td>
            </tr>
          )}
        </tbody>
      </table>
      <p className="small">Source: {instrument.source}. Players differ: ask yours.</p>
      <div className="controls">
        {!changing && (
          <button type="button" onClick={() => setChanging(true)}>
            Change it for this song
          </button>
        )}
        <button type="button" onClick={addOwn}>
          New instrument from this one
        </button>
        {own && (
          <button
            type="button"
            onClick={() => {
              const edits = known
                ? [{ do: "removeInstrument" as const, instrument: instrument.id }]
                : [
                    { do: "setPart" as const, part: part.id, instrument: "piano" },
                    { do: "removeInstrument" as const, instrument: instrument.id },
                  ];
              edit({ do: "all", label: "instrument", edits });
            }}
          >
            {known ? "Back to the handbook's values" : "Remove this instrument"}
          </button>
        )}
      </div>
    </>
  );
}
