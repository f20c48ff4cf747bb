import { useState } from "react";
import { Meter, Song, sure, Take, Text } from "../../../core/src/index";
import { acceptEdit, auditionEdit } from "../../app/commands/audition";
import { logged } from "../../app/commands/log";
import {
  barsAtHand,
  bringEdit,
  differenceText,
  keep,
  ofText,
  type Keep,
  type KeptTake,
} from "../../app/commands/takes";
import { usePlayback } from "../../app/store/playback";
import type { SectionData } from "../../app/store/sectionData";
import { edit, useOfSong, useStored } from "../../app/store/song";
import { Button } from "../../kit/Button";
import { Fold } from "../../kit/Fold";
import { HearTake } from "../../kit/HearTake";
import { InPlace } from "../../kit/InPlace";
import { Select } from "../../kit/Select";
import { timeText } from "./times";

/** Takes of a section: kept, compared with what stands there, brought back whole or in part. */
export function TakesTab({ data }: { data: SectionData }) {
  const { section } = useStored(data.section.id);
  const takes = useOfSong((s) => s.takes).filter((t) => t.sectionId === section.id);
  return (
    <>
      <KeepOne data={data} />
      {!takes.length && (
        <p className="small">
          No take of {section.name} yet. <kbd>Shift T</kbd> keeps one from anywhere: of the part of the chosen note, or
          of everything. Nothing is dropped unless you forget it.
        </p>
      )}
      <ol className="takes-list" aria-label={`Takes of ${section.name}`}>
        {[...takes].reverse().map((t) => (
          <OneTake key={t.id} data={data} take={t} />
        ))}
      </ol>
    </>
  );
}

const EVERYTHING = "everything";
const CHORDS = "chords";
const DRUMS = "drums";

/** What a take is to be of. */
function meant(value: string): Keep {
  if (value === EVERYTHING) return {};
  if (value === CHORDS) return { chords: true, parts: [] };
  if (value === DRUMS) return { drums: true, parts: [] };
  return { part: value };
}

function KeepOne({ data }: { data: SectionData }) {
  const [what, setWhat] = useState(EVERYTHING);
  usePlayback((s) => s.loop);
  const bars = barsAtHand(data.section.id);
  const written = data.song.parts.filter(Song.isWritten);
  return (
    <div className="controls">
      <Select
        label="Keep a take of"
        text="keep"
        value={what}
        choices={[
          [EVERYTHING, "everything"],
          [CHORDS, "the chords"],
          [DRUMS, "the drums"],
          ...written.map((p) => [p.id, p.name] as const),
        ]}
        set={setWhat}
      />
      <span className="small">{bars ? `bars ${bars[0] + 1}–${bars[1]}, as they are looped` : "all bars"}</span>
      <Button className="primary" onClick={() => keep(data.section.id, meant(what))}>
        Keep
      </Button>
    </div>
  );
}

function OneTake({ data, take }: { data: SectionData; take: KeptTake }) {
  const { song, section } = useStored(data.section.id);
  const [from, to] = Take.bars(take, section);
  const stretch = { from: from * data.meter.bar, to: Math.min(section.bars, to) * data.meter.bar };
  const difference = Take.difference(take, section, data.meter.bar);
  const bring = (more: Parameters<typeof bringEdit>[1], said: string) =>
    acceptEdit({
      do: "all",
      label: said,
      edits: [
        bringEdit(take, more),
        logged({ what: `Brought back ${take.name}: ${said}`, section: section.id, take: take.id }),
      ],
    });
  const hear = (more: Parameters<typeof bringEdit>[1], id: string) =>
    auditionEdit(bringEdit(take, more), take.name, `take:${take.id}:${id}`, stretch);
  const lines = Object.keys(take.notes ?? {}).length > 0;
  const same = !difference.bars.length;
  return (
    <li>
      <div className="take-head">
        <InPlace
          label="Name of the take"
          className="wide strong"
          value={take.name}
          commit={(name) => edit({ do: "setTake", take: take.id, name })}
        />
        <Button
          className="quiet"
          aria-label={`Forget ${take.name}`}
          title="Forget it; Undo brings it back"
          onClick={() => edit({ do: "removeTake", take: take.id })}
        >
          <i className="bi-trash3" />
        </Button>
      </div>
      <p className="small flush">
        {take.made ? `${timeText(take.made)}, ` : ""}
        {ofText(song, take)}
        {take.passId ? `, heard in pass ${song.form.findIndex((p) => p.id === take.passId) + 1}` : ""}
      </p>
      <p className="small flush">{same ? "As it stands now." : `Against now: ${differenceText(difference)}.`}</p>
      <InPlace
        label="Why it was kept"
        className="wide"
        value={take.why ?? "why?"}
        commit={(why) => edit({ do: "setTake", take: take.id, why })}
      />
      {!same && (
        <ul className="plain-list take-ways">
          <Way
            what="all of it"
            name={take.name}
            id={`take:${take.id}:all`}
            hear={() => hear({}, "all")}
            take={() => bring({}, "all of it")}
          />
          {lines &&
            (["rhythm", "pitches"] as const).map((only) => (
              <Way
                key={only}
                what={ONLY[only]}
                name={`${ONLY[only]}, ${take.name}`}
                id={`take:${take.id}:${only}`}
                hear={() => hear({ only }, only)}
                take={() => bring({ only }, ONLY[only])}
              />
            ))}
        </ul>
      )}
      {lines && <Best data={data} take={take} hear={hear} bring={bring} />}
    </li>
  );
}

type More = Parameters<typeof bringEdit>[1];
interface Ways {
  hear(more: More, id: string): void;
  bring(more: More, said: string): boolean;
}

const ONLY = {
  rhythm: "its rhythm, with the pitches of now",
  pitches: "its pitches, in the rhythm of now",
} as const;

interface WayProps {
  what: string;
  name: string;
  id: string;
  hear(): void;
  take(): unknown;
}

/** One way of bringing a take back. */
const Way = ({ what, name, id, hear, take }: WayProps) => (
  <li>
    <span className="small">{what}</span>
    <HearTake id={id} name={name} takeText="Bring back" hear={hear} take={take} />
  </li>
);

/** Best bars that are shown. */
const SHOWN = 4;

/** Bars of a fuller take that would do well inside what stands there. */
function Best({ data, take, hear, bring }: Ways & { data: SectionData; take: KeptTake }) {
  const { song } = useStored(data.section.id);
  const [part] = Object.keys(take.notes ?? {});
  const best = part ? Take.bestBars(song, take, part).slice(0, SHOWN) : [];
  if (!best.length) return null;
  const name = sure(Song.part(song, part ?? "")).name.split(",")[0];
  return (
    <Fold title={`its best bars inside what stands there (${name ?? ""})`}>
      <ul className="plain-list">
        {best.map(({ bar, reasons }) => (
          <li key={bar} className="best-bar">
            <span>
              {Text.capital(Meter.position(data.meter, bar * data.meter.bar).split(",")[0] ?? "")}{" "}
              <span className="small">{reasons.join(", ")}</span>
            </span>
            <HearTake
              id={`take:${take.id}:bar ${bar}`}
              name={`bar ${bar + 1} of ${take.name}`}
              hear={() => hear({ bars: [bar, bar + 1] }, `bar ${bar}`)}
              take={() => bring({ bars: [bar, bar + 1] }, `bar ${bar + 1}`)}
            />
          </li>
        ))}
      </ul>
    </Fold>
  );
}
