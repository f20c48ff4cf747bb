import { useEffect, useState } from "react";
import type { Edit, Part, PitchName } from "../../../core/src/index";
import type { ScoreData } from "../../score/data";
import { useSong } from "../../store/song";
import { useView, type Offer } from "../../store/view";
import { workers } from "../../workers/client";
import { OfferButtons } from "../chords/offers";

/** Voicings kept aside by the user, to be compared with what the path chooses. */
let kept: { part: string; section: string; pitches: Record<string, PitchName[]> } | null = null;

const pinAll = (section: string, part: string, pitches: Record<string, PitchName[]>): Edit => ({
  do: "all",
  label: "voicings",
  edits: Object.entries(pitches).map(([chord, p]) => ({ do: "pinVoicing", section, part, chord, pitches: p })),
});

/** The cheapest other ways through the section, and what was kept aside, to hear, compare and take. */
export function OtherWays({ data, part }: { data: ScoreData; part: Part }) {
  const { voicingPaths, offers, set, loop } = useView();
  const version = useSong((s) => s.version);
  const [busy, setBusy] = useState(false);
  const [asked, setAsked] = useState(0);
  const { section } = data;
  const bar = data.meter.bar;
  const passage = loop?.on ? { from: loop.from, to: loop.to } : { from: 0, to: data.length };
  const inside = (pitches: Record<string, PitchName[]>) =>
    Object.fromEntries(
      section.chords.flatMap((c) =>
        pitches[c.id] && c.start < passage.to && c.start + c.duration > passage.from ? [[c.id, pitches[c.id]!]] : [],
      ),
    );
  const offer = (id: string, label: string, pitches: Record<string, PitchName[]>): Offer => ({
    id,
    label,
    edit: pinAll(section.id, part.id, inside(pitches)),
    ...passage,
    whole: true,
  });
  const show = (paths = voicingPaths) => {
    const list = paths.slice(1).map((p, i) => offer(`path:${part.id}:${section.id}:${version}:${i}`, `way ${i + 1}`, p.pitches));
    if (kept?.part === part.id && kept.section === section.id)
      list.push(offer(`kept:${part.id}:${section.id}`, "kept aside", kept.pitches));
    set({ voicingPaths: paths, offers: list });
  };
  const ask = async () => {
    setBusy(true);
    const found = await workers.writer.paths(section.id, part.id);
    setBusy(false);
    if (!found.ok) useSong.getState().say(found.error);
    else {
      setAsked(useSong.getState().version);
      show(found.value);
    }
  };
  // What was offered belongs to the chords as they were.
  useEffect(() => {
    set({ voicingPaths: [], offers: [] });
    return () => set({ voicingPaths: [], offers: [] });
  }, [part.id, section.id, set]);
  const keep = () => {
    kept = {
      part: part.id,
      section: section.id,
      pitches: Object.fromEntries(section.chords.flatMap((c) => (c.voicings?.[part.id] ? [[c.id, c.voicings[part.id]!.pitches]] : []))),
    };
    show();
  };
  return (
    <>
      <div className="row-head">
        <h3 className="flush">Other ways</h3>
        <span className="controls flush">
          <button type="button" disabled={busy} onClick={() => void ask()}>
            {busy ? "Looking …" : asked && asked !== version ? "Look again" : "Find five"}
          </button>
          <button type="button" title="Remember these voicings and compare them later" onClick={keep}>
            Keep aside
          </button>
        </span>
      </div>
      {offers.length > 0 ? (
        <ol className="offer-list" aria-label="Other ways">
          {offers.map((o, i) => {
            const path = o.id.startsWith("path:") ? voicingPaths[i + 1] : undefined;
            return (
              <li key={o.id}>
                <span className="offer-head">
                  <b>{i + 1}</b>
                  <span className="offer-chords">{path ? `moves ${path.motion}` : "kept aside"}</span>
                  <OfferButtons offer={o} bar={bar} end={data.length} />
                </span>
                <span className="small offer-why">
                  {path ? path.trades.join(", ") || "nearly the same price" : "what you kept, to be compared with what is written"}
                  {path && !path.exact && (
                    <span title="Found by making what came before cost more; a cheaper one may exist"> · not proven the cheapest</span>
                  )}
                </span>
              </li>
            );
          })}
        </ol>
      ) : (
        <p className="small">
          Each differs in the top or lowest note of a quarter of the chords. Hear with 1–6, compare with A, take with T.
        </p>
      )}
    </>
  );
}
