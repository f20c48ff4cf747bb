import { useEffect, useMemo, useState } from "react";
import { type Anew, type Part, Text, Voicing } from "../../core/src/index";
import type { Offer } from "../app/store/results";
import type { SectionData } from "../app/store/sectionData";
import { useSong } from "../app/store/song";
import { workers } from "../app/workers/sync";
import { OfferButtons } from "./OfferButtons";

/** What laying the section out anew would gain, as often as the song changes. */
function useAnew(section: string, part: string): Anew | null | undefined {
  const version = useSong((s) => s.version);
  const [anew, setAnew] = useState<Anew | null>();
  useEffect(() => {
    let current = true;
    void workers.writer.anew(section, part).then((found) => {
      if (current) setAnew(found.ok ? found.value : null);
    });
    return () => {
      current = false;
    };
  }, [section, part, version]);
  return anew;
}

/**
 * Layouts stay when a chord beside them changes; what another way through the whole section would gain is offered here.
 */
export function LaidOutAnew({ data, part }: { data: SectionData; part: Part }) {
  const section = data.section.id;
  const anew = useAnew(section, part.id);
  const offer = useMemo(
    (): Offer | null =>
      anew
        ? {
            id: `anew:${part.id}:${section}:${anew.gain.toFixed(2)}`,
            label: "laid out anew",
            edit: Voicing.store(section, part.id, anew.pitches),
            from: 0,
            to: data.length,
            whole: true,
          }
        : null,
    [anew, part.id, section, data.length],
  );
  if (!anew || !offer) return null;
  const [moves, now] = anew.motion;
  return (
    <div className="offer" role="group" aria-label="Laid out anew">
      <span className="offer-head">
        <span className="offer-chords">Lay out anew</span>
        <OfferButtons offer={offer} bar={data.meter.bar} end={data.length} />
      </span>
      <span className="small offer-why">
        {moves < now
          ? `moves ${Text.counted(moves, "semitone")} instead of ${now}`
          : anew.trades.join(", ") || "costs less in all"}
        ; {Text.counted(anew.changed, "chord changes", "chords change")}, pinned ones stay
      </span>
    </div>
  );
}
