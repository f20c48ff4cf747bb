import { useMemo } from "react";
import { Link, useParams } from "react-router";
import { Meter, Pitch, type PitchName, Singer, Song, sure, Text, type Zone } from "../../../core/src/index";
import { acceptEdit, around, auditionEdit } from "../../app/commands/audition";
import { factsNow, type SectionData } from "../../app/store/sectionData";
import { edit, say, useStored } from "../../app/store/song";
import { Fold } from "../../kit/Fold";
import { HearTake } from "../../kit/HearTake";
import { InPlace } from "../../kit/InPlace";
import type { PartProps } from "../../kit/partProps";
import { RangeStrip } from "../../kit/RangeStrip";
import { Select } from "../../kit/Select";
import { percent, typedPitch } from "../../kit/texts";
import { Keys } from "./Keys";
import { Button } from "../../kit/Button";

/** Who sings: their ranges, the key that suits them, where to breathe, and their pages. */
export function SingersTab({ data, part }: PartProps) {
  const { song } = useStored(data.section.id);
  const { id } = useParams();
  const add = () => {
    // The line that is worked on, else the first that is sung and has no singer yet.
    const free = song.parts.filter((p) => Singer.isSung(song, p) && Song.isWritten(p) && !Singer.of(song, p.id));
    const sings = free.find((p) => p.id === part.id) ?? free[0];
    edit({
      do: "addSinger",
      name: sings?.name.split(",")[0] ?? `Singer ${song.singers.length + 1}`,
      voice: Singer.VOICES.find((v) => v.id === sings?.instrument)?.id ?? "mezzo",
      ...(sings ? { part: sings.id } : {}),
    });
  };
  return (
    <>
      {song.singers.map((s) => (
        <OneSinger key={s.id} data={data} singer={s} />
      ))}
      {!song.singers.length && (
        <p className="small">
          Say who sings, and the song can be tried in every key for their voices. What is measured counts more than the
          type of voice.
        </p>
      )}
      <p className="controls">
        <Button className={song.singers.length ? "" : "primary"} onClick={add}>
          Add a singer
        </Button>
        {song.singers.some((s) => s.partId) && (
          <Link className="button" to={`/songs/${id}/pages?for=singers`}>
            Pages for the singers
          </Link>
        )}
      </p>
      {song.singers.some((s) => s.partId) && <Keys data={data} />}
      <Contours data={data} part={part} />
      <Breaths data={data} part={part} />
    </>
  );
}

const ZONE_WORDS: Record<Zone, string> = {
  below: "too low",
  low: "low",
  easy: "at ease",
  high: "high",
  above: "too high",
};

/** One singer, edited where they stand. */
function OneSinger({ data, singer }: { data: SectionData; singer: Singer }) {
  const { song } = useStored(data.section.id);
  const range = Singer.range(song, singer);
  const notes = useMemo(() => Singer.sungBy(factsNow(song), singer), [song, singer]);
  const time = Singer.timeByPitch(notes);
  const all = notes.reduce((sum, n) => sum + n.seconds, 0);
  const zones = Singer.ZONES.map(
    (z) => [z, notes.reduce((sum, n) => sum + (Singer.zone(range, n.midi) === z ? n.seconds : 0), 0)] as const,
  ).filter(([, s]) => s > 0);
  const caution = useMemo(() => Singer.caution(factsNow(song), singer), [song, singer]);
  const parts = song.parts.filter((p) => Song.isWritten(p) && p.role !== "bass" && p.role !== "chords");
  return (
    <section className="singer" aria-label={singer.name}>
      <div className="controls">
        <InPlace
          label="Name of the singer"
          className="name"
          value={singer.name}
          commit={(name) => edit({ do: "setSinger", singer: singer.id, name })}
        />
        <Select
          label="Voice"
          value={singer.voice}
          choices={Singer.VOICES.map((v) => [v.id, v.title])}
          set={(id) => edit({ do: "setSinger", singer: singer.id, voice: id })}
        />
        <Select
          label="Sings"
          text="sings"
          value={singer.partId ?? ""}
          choices={[["", "nothing yet"], ...parts.map((p) => [p.id, p.name] as const)]}
          set={(id) => edit({ do: "setSinger", singer: singer.id, part: id === "" ? null : id })}
        />
      </div>
      <div className="singer-range">
        <RangeStrip label={singer.name} range={range} time={time} width={190} />
        <span className="small">
          {zones.length
            ? zones.map(([z, s]) => `${percent(s / all)} ${ZONE_WORDS[z]}`).join(", ")
            : "sings nothing yet"}
        </span>
      </div>
      <Ranges singer={singer} />
      {caution && (
        <p className="small caution" role="note">
          {caution}
        </p>
      )}
    </section>
  );
}

/** The ends of a voice and its breath, as they were measured or as the type of voice has them. */
function Ranges({ singer }: { singer: Singer }) {
  const voice = Singer.VOICES.find((v) => v.id === singer.voice);
  const ends = (which: "comfortable" | "extremes"): [PitchName, PitchName] =>
    singer[which] ?? (which === "comfortable" ? (voice?.comfortable ?? ["C4", "C5"]) : (voice?.range ?? ["A3", "F5"]));
  const put = (which: "comfortable" | "extremes", end: 0 | 1) => (text: string) => {
    const pitch = typedPitch(text, say);
    if (pitch === null) return false;
    const next: [PitchName, PitchName] = [...ends(which)];
    next[end] = pitch;
    return edit({ do: "setSinger", singer: singer.id, [which]: next });
  };
  return (
    <p className="small">
      at ease{" "}
      <InPlace
        label="Lowest note at ease"
        value={Pitch.typeset(ends("comfortable")[0])}
        commit={put("comfortable", 0)}
      />
      –
      <InPlace
        label="Highest note at ease"
        value={Pitch.typeset(ends("comfortable")[1])}
        commit={put("comfortable", 1)}
      />{" "}
      · at most{" "}
      <InPlace label="Lowest note of all" value={Pitch.typeset(ends("extremes")[0])} commit={put("extremes", 0)} />–
      <InPlace label="Highest note of all" value={Pitch.typeset(ends("extremes")[1])} commit={put("extremes", 1)} /> ·
      one breath{" "}
      <InPlace
        label="Seconds of one breath"
        value={String(singer.breath ?? Singer.USUAL_BREATH)}
        suffix="s"
        commit={(text) => edit({ do: "setSinger", singer: singer.id, breath: Number(text.replace(",", ".")) })}
      />
      {(singer.comfortable || singer.extremes || singer.breath) && (
        <Button
          className="quiet"
          title="The ranges of the type of voice again"
          onClick={() => edit({ do: "setSinger", singer: singer.id, comfortable: null, extremes: null, breath: null })}
        >
          as usual
        </Button>
      )}{" "}
      <Button className="quiet" onClick={() => edit({ do: "removeSinger", singer: singer.id })}>
        remove
      </Button>
    </p>
  );
}

/** A line that lies outside the voice, written anew inside it. */
function Contours({ data, part }: PartProps) {
  const { song, section } = useStored(data.section.id);
  const found = useMemo(
    () => Singer.rewrite(song, { section: section.id, part: part.id }),
    [song, section.id, part.id],
  );
  if (!found.ok || !found.value.length) return null;
  return (
    <>
      <h3>
        {part.name.split(",")[0]} {found.value.some((r) => r.beyond) ? "lies outside" : "goes to the edge of"} the voice
        here
      </h3>
      <p className="small">
        Rather than another key: rhythm and words stay, the line goes where it went as far as there is room.
      </p>
      <ol className="choices" aria-label="Written anew">
        {found.value.map((r) => (
          <li key={r.title}>
            <span className="line-title">
              {r.title}{" "}
              <span className="small">
                {Text.counted(r.changed.length, "note")} changed, {percent(r.shape)} of the moves as they were
              </span>
            </span>
            <HearTake
              id={`contour:${part.id}:${r.title}`}
              name={r.title}
              hear={() => auditionEdit(r.edit, r.title, `contour:${part.id}:${r.title}`, { from: 0, to: data.length })}
              take={() => acceptEdit(r.edit)}
            />
          </li>
        ))}
      </ol>
    </>
  );
}

/** Phrases that are longer than one breath, and where to breathe. */
function Breaths({ data, part }: PartProps) {
  const { song, section } = useStored(data.section.id);
  const phrases = useMemo(
    () => Singer.breaths(song, { section: section.id, part: part.id }),
    [song, section.id, part.id],
  );
  if (!Singer.isSung(song, part) || !phrases.ok || !phrases.value.length) return null;
  const long = phrases.value.filter((p) => p.long);
  const breath = Singer.of(song, part.id)?.breath ?? Singer.USUAL_BREATH;
  return (
    <>
      <h3>Breaths</h3>
      <p className="small">
        {Text.counted(phrases.value.length, "phrase")} in {section.name}, the longest{" "}
        {Math.max(...phrases.value.map((p) => p.seconds)).toFixed(1)} s.{" "}
        {long.length ? "" : `None is longer than one breath of ${breath} s.`}
      </p>
      {long.map((p) => (
        <div key={p.start} className="breaths">
          <p className="small">
            {Meter.position(data.meter, p.start)}, {p.seconds.toFixed(1)} s:{" "}
            {p.breaths.length
              ? "breathe"
              : "no good place to breathe inside; shorten it or let another voice take over"}
          </p>
          <ul className="rough">
            {p.breaths.map((b) => {
              const id = `breath:${b.note}`;
              const { from, to } = around(section, data.meter, b.tick);
              return (
                <li key={b.note}>
                  <span>{Pitch.typesetAll(b.words)}</span>
                  {b.edit ? (
                    <HearTake
                      id={id}
                      name={`a breath ${b.words}`}
                      hear={() => auditionEdit(sure(b.edit), b.words, id, { from, to })}
                      take={() => acceptEdit(sure(b.edit))}
                    />
                  ) : (
                    <span className="small">there is a rest</span>
                  )}
                </li>
              );
            })}
          </ul>
        </div>
      ))}
      {long.length > 0 && <Fold title="how places are found">{HOW}</Fold>}
    </>
  );
}
const HOW = (
  <p className="small">
    As few as will do, so that every stretch is one breath: where a rest is, at the end of a word or a clause, after a
    long note, before the bar line; never inside a word. Taking one ends the note before a little earlier (common
    practice).
  </p>
);
