import {
  Comp,
  type CompKind,
  Edit,
  firstOf,
  Instrument,
  type Link,
  type Part,
  Pitch,
  Song,
  sure,
} from "../../../core/src/index";
import { freeName, removePart } from "../../app/commands/parts";
import { setInstrument } from "../../app/commands/voicings";
import type { SectionData } from "../../app/store/sectionData";
import { useSelection } from "../../app/store/selection";
import { edit, songNow, useSong } from "../../app/store/song";
import { Select, type Choice } from "../../kit/Select";
import { CompSettings } from "./CompSettings";
import { Button } from "../../kit/Button";

const kindOf = (part: Part): CompKind => sure(Comp.KINDS.find((k) => k.id === sure(part.link).kind));

/** Parts that find layouts of their own, which others may play after. */
const sourcesIn = (parts: readonly Part[]): Part[] => parts.filter((p) => sure(p.link).kind === "voicing");

const isTune = (p: Part): boolean => p.role === "melody" || p.role === "vocal";

/** Adds a part that plays the chords in a way, and shows it. */
function addPart(kind: CompKind): void {
  const song = songNow();
  const source = sourcesIn(Edit.laidOutParts(song))[0];
  const tune = song.parts.find((p) => isTune(p) && Song.isWritten(p));
  const links: Partial<Record<Link["kind"], Link>> = { block: { kind: "block", ...(tune ? { top: tune.id } : {}) } };
  const link: Link =
    links[kind.id] ??
    (kind.voices ? { kind: "voicing", loop: true } : { kind: kind.id, ...(source ? { from: source.id } : {}) });
  const { name, instrument } = kind.fresh;
  const made = useSong.getState().make({ do: "addPart", name: freeName(name), role: "chords", instrument, link });
  if (made) useSelection.setState({ voicePart: firstOf(made) });
}

/** All parts that play the chords, and how each plays them. */
export function PartsTab({ data }: { data: SectionData }) {
  const chosen = useSelection((s) => s.voicePart);
  const linked = data.song.parts.filter((p) => p.link);
  const open = linked.find((p) => p.id === chosen) ?? linked[0];
  return (
    <>
      <p className="small">
        One harmony, several parts. They follow the chords until you detach them; then their notes are yours to change.
      </p>
      <ul className="part-list">
        {linked.map((p) => (
          <li key={p.id} className={p === open ? "open" : ""}>
            <Button
              className="part-name"
              aria-expanded={p === open}
              onClick={() => useSelection.setState({ voicePart: p.id })}
            >
              <b>{p.name}</b> <span className="small">{kindOf(p).title.toLowerCase()}</span>
            </Button>
            {p === open && <OnePart data={data} part={p} />}
          </li>
        ))}
      </ul>
      <h3>Add a part from these chords</h3>
      <div className="add-kinds">
        {Comp.KINDS.map((k) => (
          <Button key={k.id} title={k.explanation} onClick={() => addPart(k)}>
            {k.title}
          </Button>
        ))}
      </div>
    </>
  );
}

/** Why a part plays nothing. */
function whySilent({ song, section }: SectionData, part: Part): string {
  const written = (id: string | undefined) => id !== undefined && (section.notes[id]?.length ?? 0) > 0;
  const tune = song.parts.some((p) => isTune(p) && written(p.id));
  const { kind, top } = sure(part.link);
  if (!section.chords.length) return "there are no chords yet.";
  if (kind === "block") return written(top) ? "it is being laid out." : "choose a tune under Path, and write it.";
  if (kind === "fills") return tune ? "no gap of the tune is long enough." : "there is no tune to leave gaps.";
  if (part.playing.comp?.follow) return "the drum it follows is not struck.";
  return "the part it plays after has no voicings, or its rhythm has no attack.";
}

function OnePart({ data, part }: { data: SectionData; part: Part }) {
  const kind = kindOf(part);
  const silent = data.real.parts.find((p) => p.id === part.id)?.notes.length ? "" : whySilent(data, part);
  return (
    <div className="one-part">
      <p className="small flush">{kind.explanation}</p>
      {silent && (
        <p className="small problem flush" role="status">
          Silent in this section: {silent}
        </p>
      )}
      <div className="controls">
        <Select
          label={`Instrument of ${part.name}`}
          text="on"
          value={part.instrument}
          choices={Instrument.forRole(data.song)
            .filter((i) => i.roles.includes(part.role))
            .map((i) => [i.id, Pitch.typesetAll(i.title)])}
          set={(id) => setInstrument(part.id, id)}
        />
        {kind.id !== "block" && <Source data={data} part={part} own={kind.voices} />}
      </div>
      <CompSettings data={data} part={part} kind={kind} />
      <div className="controls">
        <Button
          title="The notes become this part's own"
          onClick={() => edit({ do: "setLink", part: part.id, link: null })}
        >
          Detach
        </Button>
        <Button title="Undo brings it back" onClick={() => removePart(part.id)}>
          Remove
        </Button>
      </div>
    </div>
  );
}

/** Whose layouts a part plays: its own, or those of another. */
function Source({ data, part, own }: { data: SectionData; part: Part; own: boolean }) {
  const sources = sourcesIn(Edit.laidOutParts(data.song)).filter((p) => p.id !== part.id);
  const { from, ...link } = sure(part.link);
  if (!sources.length && !from) return null;
  return (
    <Select
      label={`Voicings of ${part.name}`}
      text="plays"
      value={from ?? ""}
      choices={[
        ...(own ? [["", "its own voicings"] as const] : []),
        ...sources.map((p): Choice<string> => [p.id, `what ${p.name} plays`]),
      ]}
      set={(id) => edit({ do: "setLink", part: part.id, link: id ? { ...link, from: id } : link })}
    />
  );
}
