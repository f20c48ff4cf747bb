import { COMP_KINDS, instrumentsFor, type CompKind, type Link, type Part, type PlayingOf, type SettingName } from "../../../core/src/index";
import type { ScoreData } from "../../score/data";
import { useSong, type PlayingChange } from "../../store/song";
import { useView } from "../../store/view";
import { voicedParts } from "./act";
import { Rhythm } from "./Rhythm";

type CompNumber = {
  [K in keyof PlayingOf<"comp">]-?: PlayingOf<"comp">[K] extends number | undefined ? K : never;
}[keyof PlayingOf<"comp">];

const kindOf = (part: Part): CompKind => COMP_KINDS.find((k) => k.id === part.link!.kind)!;

/** All parts that play the chords, and how each plays them. */
export function PartsTab({ data }: { data: ScoreData }) {
  const { voicePart, set } = useView();
  const linked = data.song.parts.filter((p) => p.link);
  const open = linked.find((p) => p.id === voicePart) ?? linked[0];
  const add = (kind: CompKind) => {
    const source = voicedParts(data.song).find((p) => p.link!.kind === "voicing");
    const tune = data.song.parts.find((p) => (p.role === "melody" || p.role === "vocal") && !p.link);
    const link: Link =
      kind.id === "block"
        ? { kind: "block", ...(tune ? { top: tune.id } : {}) }
        : kind.voices
          ? { kind: "voicing", loop: true }
          : { kind: kind.id, ...(source ? { from: source.id } : {}) };
    const taken = new Set(data.song.parts.map((p) => p.name));
    const { name, instrument } = kind.fresh;
    let free = name;
    for (let i = 2; taken.has(free); i++) free = `${name} ${i}`;
    const made = useSong.getState().make({ do: "addPart", name: free, role: "chords", instrument, link });
    if (made) set({ voicePart: made[0]! });
  };
  return (
    <>
      <p className="small">
        One harmony, several parts. They follow the chords until you detach them; then their notes are yours to change.
      </p>
      <ul className="part-list">
        {linked.map((p) => (
          <li key={p.id} className={p === open ? "open" : ""}>
            <button type="button" className="part-name" aria-expanded={p === open} onClick={() => set({ voicePart: p.id })}>
              <b>{p.name}</b> <span className="small">{kindOf(p).title.toLowerCase()}</span>
            </button>
            {p === open && <OnePart data={data} part={p} />}
          </li>
        ))}
      </ul>
      <h3>Add a part from these chords</h3>
      <div className="add-kinds">
        {COMP_KINDS.map((k) => (
          <button key={k.id} type="button" title={k.explanation} onClick={() => add(k)}>
            {k.title}
          </button>
        ))}
      </div>
    </>
  );
}

/** Why a part plays nothing. */
function whySilent(data: ScoreData, part: Part): string {
  const tune = data.song.parts.some((p) => (p.role === "melody" || p.role === "vocal") && data.section.notes[p.id]?.length);
  if (!data.section.chords.length) return "there are no chords yet.";
  if (part.link!.kind === "block")
    return part.link!.top && data.section.notes[part.link!.top]?.length
      ? "it is being laid out."
      : "choose a tune under Path, and write it.";
  if (part.link!.kind === "fills") return tune ? "no gap of the tune is long enough." : "there is no tune to leave gaps.";
  if (part.playing.comp?.follow) return "the drum it follows is not struck.";
  return "the part it plays after has no voicings, or its rhythm has no attack.";
}

function OnePart({ data, part }: { data: ScoreData; part: Part }) {
  const edit = useSong((s) => s.edit);
  const kind = kindOf(part);
  const sources = voicedParts(data.song).filter((p) => p.link!.kind === "voicing" && p.id !== part.id);
  const comp = part.playing.comp ?? {};
  const set = (change: PlayingChange["comp"]) => edit({ do: "setPlaying", part: part.id, comp: change });
  const has = (name: SettingName) => kind.settings.includes(name);
  const silent = data.real.parts.find((p) => p.id === part.id)?.notes.length ? "" : whySilent(data, part);
  const number = (name: CompNumber, fallback: number) => comp[name] ?? fallback;
  const choice = (name: CompNumber, label: string, options: readonly (readonly [number, string])[], fallback: number) => (
    <label>
      {label}{" "}
      <select
        aria-label={`${label} of ${part.name}`}
        value={number(name, fallback)}
        onChange={(e) => set({ [name]: Number(e.target.value) })}
      >
        {options.map(([value, text]) => (
          <option key={value} value={value}>
            {text}
          </option>
        ))}
      </select>
    </label>
  );
  const slider = (name: CompNumber, label: string, min: number, max: number, step: number, time = false) => (
    <label className="slider">
      <span>{label}</span>
      <input
        type="range"
        min={min}
        max={max}
        step={step}
        value={number(name, 0)}
        aria-label={`${label} of ${part.name}`}
        onChange={(e) => set({ [name]: Number(e.target.value) })}
      />
      <span className="tabular">{time ? `${Math.round((number(name, 0) * 125) / data.song.tempo)} ms` : number(name, 0)}</span>
    </label>
  );
  return (
    <div className="one-part">
      <p className="small flush">{kind.explanation}</p>
      {silent && (
        <p className="small problem flush" role="status">
          Silent in this section: {silent}
        </p>
      )}
      <div className="controls">
        <label>
          on{" "}
          <select
            aria-label={`Instrument of ${part.name}`}
            value={part.instrument}
            onChange={(e) => edit({ do: "setPart", part: part.id, instrument: e.target.value })}
          >
            {instrumentsFor(data.song)
              .filter((i) => i.roles.includes(part.role))
              .map((i) => (
                <option key={i.id} value={i.id}>
                  {i.title}
                </option>
              ))}
          </select>
        </label>
        {kind.id !== "block" && (sources.length > 0 || part.link!.from) && (
          <label>
            plays{" "}
            <select
              aria-label={`Voicings of ${part.name}`}
              value={part.link!.from ?? ""}
              onChange={(e) => {
                const { from: _, ...link } = part.link!;
                edit({ do: "setLink", part: part.id, link: e.target.value ? { ...link, from: e.target.value } : link });
              }}
            >
              {kind.voices && <option value="">its own voicings</option>}
              {sources.map((p) => (
                <option key={p.id} value={p.id}>
                  what {p.name} plays
                </option>
              ))}
            </select>
          </label>
        )}
      </div>
      {has("rhythm") && <Rhythm data={data} part={part} set={set} />}
      <div className="controls">
        {has("lift") &&
          choice(
            "lift",
            "octave",
            kind.id === "octave"
              ? [
                  [-2, "two lower"],
                  [-1, "one lower"],
                  [1, "one higher"],
                  [2, "two higher"],
                ]
              : [
                  [-1, "one lower"],
                  [0, "as voiced"],
                  [1, "one higher"],
                  [2, "two higher"],
                ],
            kind.id === "octave" ? 1 : 0,
          )}
        {has("notes") &&
          choice(
            "notes",
            "notes",
            [
              [1, "top one"],
              [2, "top two"],
              [3, "top three"],
            ],
            2,
          )}
        {has("step") &&
          choice(
            "step",
            "step",
            [
              [480, "quarter"],
              [240, "eighth"],
              [160, "eighth triplet"],
              [120, "sixteenth"],
            ],
            240,
          )}
        {has("octaves") &&
          choice(
            "octaves",
            "over",
            [
              [1, "one octave"],
              [2, "two octaves"],
              [3, "three octaves"],
            ],
            1,
          )}
        {has("way") && (
          <label>
            going{" "}
            <select
              aria-label={`Direction of ${part.name}`}
              value={comp.way ?? "up"}
              onChange={(e) => set({ way: e.target.value as NonNullable<typeof comp.way> })}
            >
              <option value="up">up</option>
              <option value="down">down</option>
              <option value="up-down">up and down</option>
              <option value="outside-in">from outside in</option>
            </select>
          </label>
        )}
        {has("gap") &&
          choice(
            "gap",
            "gaps of",
            [
              [1, "a beat and more"],
              [1.5, "one beat and a half"],
              [2, "two beats"],
              [3, "three beats"],
            ],
            1.5,
          )}
      </div>
      {has("strum") && (
        <>
          {slider("strum", "strum", 0, 60, 2, true)}
          <div className="controls">
            <label>
              from{" "}
              <select
                aria-label={`Strum of ${part.name}`}
                value={comp.strumWay ?? "up"}
                onChange={(e) => set({ strumWay: e.target.value as NonNullable<typeof comp.strumWay> })}
              >
                <option value="up">the lowest note</option>
                <option value="down">the highest note</option>
                <option value="alternate">both in turn</option>
              </select>
            </label>
          </div>
          {slider("slope", "louder note by note", -12, 12, 1)}
        </>
      )}
      {has("human") && (
        <>
          {slider("human", "loose hands", 0, 40, 1, true)}
          {number("human", 0) > 0 && (
            <div className="controls">
              <button type="button" onClick={() => set({ seed: number("seed", 1) + 1 })}>
                Another hand ({number("seed", 1)})
              </button>
            </div>
          )}
        </>
      )}
      <div className="controls">
        <button type="button" title="The notes become this part's own" onClick={() => edit({ do: "setLink", part: part.id, link: null })}>
          Detach
        </button>
        <button type="button" title="Undo brings it back" onClick={() => edit({ do: "removePart", part: part.id })}>
          Remove
        </button>
      </div>
    </div>
  );
}
