import type { ReactNode } from "react";
import { type Conflict, nth, Pitch } from "../../core/src/index";
import { usePlayback } from "../app/store/playback";
import { useOffers, type Offer } from "../app/store/results";
import { OfferButtons } from "./OfferButtons";
import type { PartProps } from "./partProps";

/** Conflicts of a line that are told. */
const CONFLICTS = 3;

interface Line {
  title: string;
  conflicts: readonly Conflict[];
}

interface Props<L extends Line> extends PartProps {
  offers: Offer[];
  lines: readonly L[];
  /** What sets a line apart, in figures. */
  text(line: L): string;
  /** What else can be done with one. */
  children?: ((line: L, offer: Offer) => ReactNode) | undefined;
}

/** Written lines to be heard in place and taken, each with what keeps it from its aims. */
export function LineCandidates<L extends Line>({ data, part, offers, lines, text, children }: Props<L>) {
  const heard = usePlayback((s) => s.preview?.id);
  useOffers(offers);
  if (!offers.length) return null;
  return (
    <ol className="choices lines" aria-label="Candidates">
      {offers.map((offer, i) => (
        <li key={offer.id} className={heard === offer.id ? "current" : ""}>
          <span className="line-title">
            {Pitch.typesetAll(nth(lines, i).title)}
            <span className="small"> {text(nth(lines, i))}</span>
          </span>
          <OfferButtons offer={offer} bar={data.meter.bar} end={data.length} />
          {children?.(nth(lines, i), offer)}
          <Conflicts list={nth(lines, i).conflicts} />
        </li>
      ))}
      <li className="hint small">
        Keys 1–{offers.length} hear a line, A goes back and forth between it and what {part.name.split(",")[0]} has now,
        T takes it.
      </li>
    </ol>
  );
}

function Conflicts({ list }: { list: readonly Conflict[] }) {
  if (!list.length) return null;
  return (
    <ul className="conflicts">
      {list.slice(0, CONFLICTS).map((c, k) => (
        <li key={k}>{Pitch.typesetAll(c.message)}</li>
      ))}
      {list.length > CONFLICTS && <li>and {list.length - CONFLICTS} more</li>}
    </ul>
  );
}
