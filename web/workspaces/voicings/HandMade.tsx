import { Chord, Comp, Key, Meter, type Part, Pitch, Voicing } from "../../../core/src/index";
import { soundWhenVoiced } from "../../app/commands/voicings";
import type { SectionData } from "../../app/store/sectionData";
import { edit, say } from "../../app/store/song";
import { Button } from "../../kit/Button";
import { ChordName } from "../../kit/ChordName";

interface Props {
  data: SectionData;
  part: Part;
  /** The chord, by its id. */
  chord: string;
}

/**
 * What hands have made of a chord: voices that are no tones of it, the name its notes have by themselves, and strokes
 * that the rhythm does not make any more.
 */
export function HandMade({ data, part, chord: id }: Props) {
  const event = data.section.chords.find((c) => c.id === id);
  const layout = event?.voicings?.[part.id];
  if (!event || !layout?.pinned) return <Resting data={data} part={part} />;
  const chord = { section: data.section.id, part: part.id, chord: id };
  const foreign = Voicing.foreign(event.symbol, layout.pitches);
  const at = data.section.chords.indexOf(event);
  const [before, after] = [data.section.chords[at - 1]?.symbol, data.section.chords[at + 1]?.symbol];
  const [named] = foreign.length
    ? Chord.identify({
        pitches: layout.pitches,
        key: Key.name(data.key),
        ...(before ? { before } : {}),
        ...(after ? { after } : {}),
      })
    : [];
  const move = (from: string, to: string) => {
    const struck = Comp.notes(data.song, data.section, part).find((n) => n.chordId === id && n.note.pitch === from);
    const { section, part: name } = chord;
    const made = Voicing.change(data.song, {
      section,
      part: name,
      of: "chord",
      change: struck ? [{ id: struck.note.id, pitch: to }] : [],
    });
    if (!made.ok) return say(made.error);
    soundWhenVoiced(name);
    edit(made.value);
  };
  return (
    <>
      {foreign.map((v) => (
        <p key={v.pitch} className="small flush">
          {Pitch.typeset(v.pitch)} is no tone of <ChordName symbol={event.symbol} />
          {v.nearest.length > 0 && ": to "}
          {v.nearest.map((to) => (
            <Button key={to} onClick={() => move(v.pitch, to)}>
              {Pitch.typeset(to)}
            </Button>
          ))}
        </p>
      ))}
      {named && named.symbol !== event.symbol && (
        <p className="small flush">
          By its own notes it would be <ChordName symbol={named.symbol} />.{" "}
          <Button onClick={() => edit({ do: "setChord", section: chord.section, chord: id, symbol: named.symbol })}>
            name it so
          </Button>
        </p>
      )}
      <Resting data={data} part={part} />
    </>
  );
}

/** Strokes that rest, with their places. */
function Resting({ data, part }: Omit<Props, "chord">) {
  const resting = Voicing.resting(data.song, data.section, part);
  if (!resting.length) return null;
  const clear = () =>
    edit({
      do: "all",
      label: "forget strokes that rest",
      edits: [...new Set(resting.map((r) => r.chord))].map((c) => ({
        do: "setStrokes" as const,
        section: data.section.id,
        part: part.id,
        chord: c.id,
        strokes: (c.voicings?.[part.id]?.strokes ?? []).filter(
          (s) => !resting.some((r) => r.chord === c && r.tick === c.start + s.at),
        ),
      })),
    });
  return (
    <p className="small flush">
      Changed by hand, and not struck in the rhythm of now:{" "}
      {resting
        .map((r) => `${Meter.position(data.meter, r.tick)} (${r.pitches.map(Pitch.typeset).join(" ")})`)
        .join(", ")}
      . They rest until the rhythm comes back. <Button onClick={clear}>forget them</Button>
    </p>
  );
}
