import { useEffect, useMemo, useRef, useState } from "react";
import { proxy } from "comlink";
import { type Edit, fail, type Part, type PitchName, type SectionPath, sure } from "../../../core/src/index";
import { stretchOf, usePlayback } from "../../app/store/playback";
import { useOffers, useResults, type Offer } from "../../app/store/results";
import type { SectionData } from "../../app/store/sectionData";
import { say, useSong, useStored } from "../../app/store/song";
import { OfferButtons } from "../../kit/OfferButtons";
import { StopLooking } from "../../kit/StopLooking";
import { workers } from "../../app/workers/sync";
import { Button } from "../../kit/Button";

type Layouts = Record<string, PitchName[]>;

/** What the ways are called: what they move, and what they trade. */
interface Way {
  offer: Offer;
  title: string;
  words: string;
  path?: SectionPath;
}

const pinAll = (section: string, part: string, layouts: Layouts): Edit => ({
  do: "all",
  label: "voicings",
  edits: Object.entries(layouts).map(([chord, pitches]) => ({ do: "pinVoicing", section, part, chord, pitches })),
});

/** The ways that were found, and the remembered one, as offers over the looped stretch. */
function useWays(data: SectionData, part: Part): Way[] {
  const paths = useResults((s) => s.voicingPaths);
  const remembered = useResults((s) => s.remembered);
  const loop = usePlayback((s) => s.loop);
  const { section } = useStored(data.section.id);
  return useMemo(() => {
    const { from, to } = stretchOf(loop, data.length);
    const inside = new Set(section.chords.filter((c) => c.start < to && c.start + c.duration > from).map((c) => c.id));
    const offer = (id: string, label: string, layouts: Layouts): Offer => {
      const kept = Object.fromEntries(Object.entries(layouts).filter(([chord]) => inside.has(chord)));
      return {
        id: `${id}:${part.id}:${section.id}`,
        label,
        edit: pinAll(section.id, part.id, kept),
        from,
        to,
        whole: true,
      };
    };
    const found = paths.slice(1).map((path, i): Way => ({
      offer: offer(
        `path:${path.cost.toFixed(6)}:${Object.values(path.pitches).flat().join()}`,
        `way ${i + 1}`,
        path.pitches,
      ),
      title: `moves ${path.motion}`,
      words: path.trades.join(", ") || "nearly the same cost",
      path,
    }));
    const mine = remembered?.part === part.id && remembered.section === section.id ? remembered : null;
    if (mine)
      found.push({
        offer: offer("remembered", "the remembered layouts", mine.pitches),
        title: "remembered",
        words: "the layouts you remembered, to be compared with what is written",
      });
    return found;
  }, [paths, remembered, loop, section, part.id, data.length]);
}

/** The cheapest other ways through the section, and what was remembered, to hear, compare and take. */
export function OtherWays({ data, part }: { data: SectionData; part: Part }) {
  const version = useSong((s) => s.version);
  const { section } = useStored(data.section.id);
  const [busy, setBusy] = useState(false);
  const [asked, setAsked] = useState(0);
  const ways = useWays(data, part);
  useOffers(useMemo(() => ways.map((w) => w.offer), [ways]));
  const going = useRef({ request: 0, stopped: false });
  const stop = () => void (going.current.stopped = true);
  const ask = async () => {
    const mine = ++going.current.request;
    going.current.stopped = false;
    const isMine = () => going.current.request === mine;
    const show = (voicingPaths: SectionPath[]) => useResults.setState({ voicingPaths });
    const goOn = (found: SectionPath[]): boolean => {
      if (!isMine() || going.current.stopped) return false;
      show(found);
      return true;
    };
    setBusy(true);
    setAsked(useSong.getState().version);
    const found = await workers.writer
      .paths(section.id, part.id, proxy(goOn))
      .catch((error: unknown) => fail("paths.failed", (error as Error).message, { hint: "Try again." }));
    if (!isMine()) return;
    setBusy(false);
    if (found.ok) show(found.value);
    else say(found.error);
  };
  // What was found belongs to the part and the section.
  useEffect(() => {
    useResults.setState({ voicingPaths: [] });
    setBusy(false);
  }, [part.id, section.id]);
  useEffect(() => () => void going.current.request++, [part.id, section.id]);
  const remember = () => {
    const layouts = section.chords.flatMap((c) =>
      c.voicings?.[part.id] ? [[c.id, sure(c.voicings[part.id]).pitches] as const] : [],
    );
    useResults.setState({ remembered: { part: part.id, section: section.id, pitches: Object.fromEntries(layouts) } });
  };
  return (
    <>
      <div className="row-head">
        <h3 className="flush">Other ways</h3>
        <span className="controls flush">
          <Button disabled={busy} onClick={() => void ask()}>
            {busy && "Looking …"}
            {!busy && (asked && asked !== version ? "Look again" : "Find five")}
          </Button>
          {busy && <StopLooking stop={stop} />}
          <Button title="Remember these layouts and compare them later" onClick={remember}>
            Remember these
          </Button>
        </span>
      </div>
      {ways.length > 0 ? (
        <ol className="offer-list" aria-label="Other ways">
          {ways.map(({ offer, title, words, path }, i) => (
            <li key={offer.id}>
              <span className="offer-head">
                <b>{i + 1}</b>
                <span className="offer-chords">{title}</span>
                <OfferButtons offer={offer} bar={data.meter.bar} end={data.length} />
              </span>
              <span className="small offer-why">
                {words}
                {path && !path.exact && (
                  <span title="Found by making what came before cost more; a cheaper one may exist">
                    {" "}
                    · not proven the cheapest
                  </span>
                )}
              </span>
            </li>
          ))}
        </ol>
      ) : (
        <p className="small">
          Each differs in the top or lowest note of a quarter of the chords. Hear with 1–6, compare with A, take with T.
        </p>
      )}
    </>
  );
}
