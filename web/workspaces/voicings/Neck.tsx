import { useState } from "react";
import { type CapoChoice, Frets, Instrument, type Part, Pitch, Song, sure, Voicing } from "../../../core/src/index";
import { setVoicing } from "../../app/commands/voicings";
import type { SectionData } from "../../app/store/sectionData";
import { say } from "../../app/store/song";
import { InPlace } from "../../kit/InPlace";
import { Select } from "../../kit/Select";
import { oneDecimal } from "../../kit/texts";
import { workers } from "../../app/workers/sync";
import { Button } from "../../kit/Button";

const FRETS = 13;
const SHOWN = 4;

/** Tuning and capo of a fretted part. */
export function Neck({ data, part }: { data: SectionData; part: Part }) {
  const [choices, setChoices] = useState<CapoChoice[] | null>(null);
  const [busy, setBusy] = useState(false);
  const { held } = Instrument.of(part.instrument, data.song);
  if (held.by !== "frets") return null;
  const { capo = 0, tuning = held.strings } = part.playing.voicing ?? {};
  const find = async () => {
    setBusy(true);
    const found = await workers.writer.capo(part.id);
    setBusy(false);
    if (found.ok) setChoices(found.value);
    else say(found.error);
  };
  const setTuning = (text: string): boolean => {
    const parsed = text.trim() ? Frets.parseTuning(text, held.strings) : null;
    if (!parsed || parsed.ok) return setVoicing(part.id, { tuning: parsed ? parsed.value : null });
    say(parsed.error);
    return false;
  };
  return (
    <>
      <div className="controls">
        <Select
          label="Capo"
          text="capo"
          value={capo}
          choices={Array.from({ length: FRETS }, (_, i) => [i, i === 0 ? "none" : `fret ${i}`] as const)}
          set={(c) => setVoicing(part.id, { capo: c })}
        />
        <Button disabled={busy} onClick={() => void find()}>
          {busy ? "Trying capos …" : "Easiest for the song"}
        </Button>
        <span className="inline-field">
          strings <InPlace label="Tuning, lowest drawn string first" value={tuning.join(" ")} commit={setTuning} />
        </span>
      </div>
      <Unheld data={data} part={part} />
      {choices && (
        <ol className="choices" aria-label="Capos">
          {choices.slice(0, SHOWN).map((c) => (
            <li key={c.capo} className={c.capo === capo ? "current" : ""}>
              <span className="line-title">
                {c.capo ? `Capo ${c.capo}` : "No capo"}: think in {Pitch.typeset(c.keyOfShapes)}
                <span className="small">
                  strain {oneDecimal(c.strain)}, {c.barres} {c.barres === 1 ? "barre" : "barres"}, {c.open} open{" "}
                  {c.open === 1 ? "string" : "strings"}
                </span>
              </span>
              <Button onClick={() => setVoicing(part.id, { capo: c.capo })}>Take</Button>
            </li>
          ))}
        </ol>
      )}
    </>
  );
}

/** Layouts that hands have made and that cannot be held with these strings and this capo. */
function Unheld({ data: { song }, part }: { data: SectionData; part: Part }) {
  const list = Voicing.unheld(song, part);
  if (!list.length) return null;
  const places = list.map(({ section, chord, bar }) => {
    const { name } = sure(Song.section(song, section));
    return `${Pitch.typeset(chord.symbol)} in bar ${bar} of ${name}`;
  });
  return (
    <p className="small problem flush" role="status">
      Kept with their notes, but not to be held with this capo and these strings: {places.join(", ")}.
    </p>
  );
}
