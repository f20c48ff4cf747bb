import { Chord, firstOf, Pitch, type Progressed, Reharm, Text } from "../../../core/src/index";
import { usePlayback } from "../../app/store/playback";
import { usePreferences } from "../../app/store/preferences";
import type { Offer } from "../../app/store/results";
import type { SectionData } from "../../app/store/sectionData";
import { ChordName } from "../../kit/ChordName";
import { OfferButtons } from "../../kit/OfferButtons";
import type { ShownOffer } from "../../app/workers/music.worker";

interface Props {
  /** Number of its key. */
  n: number;
  data: SectionData;
  offer: Offer;
}

const useHeard = (offer: Offer): boolean => usePlayback((s) => s.preview?.id === offer.id);

/** How the tune lies over an alternative. */
function tuneText({ melody: { chordTones, tensions, clashes } }: ShownOffer): string {
  if (!chordTones && !tensions && !clashes.length) return "no tune here";
  if (clashes.length) return clashes.length > 1 ? `${clashes[0]} and ${clashes.length - 1} more` : firstOf(clashes);
  const tones = `${chordTones} chord ${chordTones === 1 ? "tone" : "tones"}`;
  return tensions ? `tune: ${tones}, ${tensions} ${tensions === 1 ? "tension" : "tensions"}` : "tune: all chord tones";
}

/** An alternative for some chords: what it is, and why it fits. */
export function OneOffer({ c, n, data, offer }: Props & { c: ShownOffer }) {
  const heard = useHeard(offer);
  const follows = usePreferences((s) => s.bassFollows);
  const outside = c.outside ? `${c.outside} ${c.outside === 1 ? "note" : "notes"} outside the key` : "in the key";
  return (
    <li className={heard ? "current" : ""}>
      <span className="offer-head">
        <b className="tabular">{n}</b>
        <span className="offer-chords">
          {c.chords.map((x, i) => (
            <ChordName key={i} symbol={x.symbol} />
          ))}
        </span>
        <OfferButtons offer={offer} bar={data.meter.bar} end={data.length} />
      </span>
      <span className="offer-why">
        {c.title}. {Reharm.describe(c.reasons[0])}.
      </span>
      <span className="small offer-measures">
        {Pitch.typesetAll(tuneText(c))}; voices move {c.motion.after} semitones (now {c.motion.before}); {outside}
        {c.bass.clashes.length > 0 && !follows && `; bass: ${Pitch.typesetAll(firstOf(c.bass.clashes))}`}
      </span>
    </li>
  );
}

/** Another progression for the whole section. */
export function WholeOffer({ p, n, data, written, offer }: Props & { p: Progressed; written: number }) {
  const heard = useHeard(offer);
  const titles = p.technique
    .split(", ")
    .map((id) => Reharm.TECHNIQUES.find((t) => t.id === id)?.title.toLowerCase() ?? id)
    .join(", ");
  const clashes = p.clashes.length;
  const fits = clashes
    ? `${clashes} ${clashes === 1 ? "note" : "notes"} of the tune would clash: ${Pitch.typesetAll(firstOf(p.clashes))}`
    : "the tune fits";
  return (
    <li className={heard ? "current" : ""}>
      <span className="offer-head">
        <b className="tabular">{n}</b>
        <span className="small">
          {p.changed ? `${p.changed} of ${Text.counted(written, "chord")} changed` : "as written"}
        </span>
        <OfferButtons offer={offer} bar={data.meter.bar} end={data.length} />
      </span>
      <span className="offer-line">{Pitch.typeset(Chord.writeLine(p.events, data.meter, data.section.bars))}</span>
      <span className="small">
        {titles}; {fits}
      </span>
    </li>
  );
}
