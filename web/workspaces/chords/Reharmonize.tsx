import { startTransition, useEffect, useMemo, useRef, useState } from "react";
import { proxy } from "comlink";
import { nth, Pitch, type Problem, type Progressed, Reharm } from "../../../core/src/index";
import { usePreferences } from "../../app/store/preferences";
import { useOffers, useResults, type Offer } from "../../app/store/results";
import type { SectionData } from "../../app/store/sectionData";
import { useSelection } from "../../app/store/selection";
import { useSong, useStored } from "../../app/store/song";
import { Check } from "../../kit/Check";
import { Slider } from "../../kit/Slider";
import { Looking } from "../../kit/StopLooking";
import { Switches } from "../../kit/Switches";
import { workers } from "../../app/workers/sync";
import { latest } from "../../app/workers/sync";
import type { ShownOffer } from "../../app/workers/music.worker";
import { OneOffer, WholeOffer } from "./ReharmOffers";
import { Fold } from "../../kit/Fold";
import { Button } from "../../kit/Button";

type Aim = "all" | "more" | "less";
type Scope = "chords" | "section";

/** What the last request found; only the newest one is shown. */
interface Found {
  one: ShownOffer[];
  whole: Progressed[];
  problem: Problem | null;
}

const NOTHING: Found = { one: [], whole: [], problem: null };

interface Asked {
  section: string;
  ids: string[];
  range: number;
  techniques: string[];
  scope: Scope;
}

/** Asks again whenever what is asked for, or the song, has changed; whole sections come progression by progression. */
function useFound(
  section: string,
  ids: string,
  range: number,
  { techniques, scope }: { techniques: string; scope: Scope },
): { found: Found; looking: boolean; stop(): void } {
  const version = useSong((s) => s.version);
  const [found, setFound] = useState<Found>(NOTHING);
  const [looking, setLooking] = useState(false);
  /** The newest request, and whether what it has found is enough. */
  const wanted = useRef({ request: 0, enough: false });
  const request = useMemo(() => {
    const ask = async ({ section, ids, range, techniques, scope }: Asked, mine: number): Promise<Found> => {
      const goOn = (whole: Progressed[]): boolean => {
        if (wanted.current.request !== mine || wanted.current.enough) return false;
        startTransition(() => setFound({ ...NOTHING, whole }));
        return true;
      };
      const result =
        scope === "section"
          ? await workers.writer.reharmonizeSection({ section, range, techniques }, proxy(goOn))
          : await workers.writer.reharmonize({ section, chordIds: ids, range, techniques });
      if (!result.ok) return { ...NOTHING, problem: result.error };
      return { ...NOTHING, [scope === "section" ? "whole" : "one"]: result.value };
    };
    const failed: Found = {
      ...NOTHING,
      problem: { code: "reharm.failed", message: "Other chords could not be looked for", hint: "Try again." },
    };
    const show = (result: Found) => {
      setLooking(false);
      startTransition(() => setFound(result));
    };
    return latest(ask, show, () => show(failed));
  }, []);
  useEffect(() => {
    const mine = ++wanted.current.request;
    wanted.current.enough = false;
    if (scope === "chords" && !ids) return setFound(NOTHING);
    setLooking(scope === "section");
    request({ section, ids: ids.split(","), range, techniques: techniques.split(","), scope }, mine);
  }, [request, section, ids, range, techniques, scope, version]);
  // Elsewhere nobody waits for it.
  useEffect(() => () => void wanted.current.request++, []);
  return { found, looking, stop: () => void (wanted.current.enough = true) };
}

/** What was found as offers that can be heard in place and taken. */
function offersOf({ one, whole }: Found, section: string, length: number): Offer[] {
  return [
    ...whole.map((p, i): Offer => ({
      id: `whole:${p.cost.toFixed(6)}:${p.events.map((e) => e.symbol).join()}`,
      label: `progression ${i + 1}`,
      said: `a progression: ${p.events.map((e) => e.symbol).join(" ")}`,
      edit: { do: "setChords", section, from: 0, to: length, chords: p.events },
      from: 0,
      to: length,
    })),
    ...one.map((c): Offer => {
      const symbols = c.chords.map((x) => x.symbol).join(" ");
      return {
        id: `reharm:${c.from}:${symbols}`,
        label: `${c.title}: ${symbols}`,
        edit: { do: "setChords", section, from: c.from, to: c.to, chords: c.chords },
        from: c.from,
        to: c.to,
      };
    }),
  ];
}

/** Alternatives for the chosen chords or the whole section, from close to adventurous. */
export function Reharmonize({ data }: { data: SectionData }) {
  const chords = useSelection((s) => s.chords);
  const chord = useSelection((s) => s.chord);
  const verdict = useResults((s) => s.verdict);
  const follows = usePreferences((s) => s.bassFollows);
  const written = useStored(data.section.id).section.chords.length;
  const [range, setRange] = useState(0.35);
  const [off, setOff] = useState<string[]>([]);
  const [aim, setAim] = useState<Aim>("all");
  const [scope, setScope] = useState<Scope>("chords");
  let ids: string[];
  if (chords.length) ids = chords;
  else if (chord) ids = [chord];
  else ids = [];
  const allowed = Reharm.TECHNIQUES.filter((t) => !off.includes(t.id) && (aim === "all" || t.aim === aim)).map(
    (t) => t.id,
  );
  const { found, looking, stop } = useFound(data.section.id, ids.join(), range, { techniques: allowed.join(), scope });
  const offers = useMemo(() => offersOf(found, data.section.id, data.length), [found, data.section.id, data.length]);
  useOffers(offers);
  return (
    <>
      {verdict && data.section.chords.length > 1 && (
        <p className={verdict.enough ? "verdict enough" : "verdict"}>{Pitch.typesetAll(verdict.text)}</p>
      )}
      <div className="controls">
        <Switches
          label="What to change"
          value={scope}
          set={setScope}
          choices={[
            ["chords", ids.length > 1 ? `${ids.length} chosen chords` : "chosen chord"],
            ["section", "whole section"],
          ]}
        />
      </div>
      <Slider
        from="close"
        to="adventurous"
        label="From close to adventurous"
        value={range}
        step={0.05}
        set={setRange}
      />
      <div className="controls">
        <Switches
          label="More or less"
          value={aim}
          set={setAim}
          choices={[
            ["all", "everything"],
            ["more", "more color"],
            ["less", "fewer chords"],
          ]}
        />
        <Check
          on={follows}
          title="The written bass keeps its rhythm and goes to the new chord tones"
          set={(on) => usePreferences.setState({ bassFollows: on })}
        >
          bass follows
        </Check>
      </div>
      <Techniques off={off} set={setOff} />
      {found.problem && (
        <p className="small">
          {found.problem.message}. {found.problem.hint}
        </p>
      )}
      {scope === "chords" && !ids.length && (
        <p className="small">
          Choose a chord in the score; Shift and arrows, or Shift and a click, choose a row of them.
        </p>
      )}
      {looking && <Looking for="progressions" stop={stop} />}
      <ol className="offer-list" aria-label="Alternatives">
        {found.whole.map((p, i) => (
          <WholeOffer key={nth(offers, i).id} p={p} n={i + 1} data={data} written={written} offer={nth(offers, i)} />
        ))}
        {found.one.map((c, i) => (
          <OneOffer key={nth(offers, i).id} c={c} n={i + 1} data={data} offer={nth(offers, i)} />
        ))}
      </ol>
      {offers.length > 0 && (
        <p className="small">
          Keys 1–{offers.length} hear one, A goes back and forth between it and what is written, T takes it. Pinned
          chords stay.
        </p>
      )}
    </>
  );
}

/** Which techniques may be used. */
function Techniques({ off, set }: { off: string[]; set(off: string[]): void }) {
  return (
    <Fold title={`${Reharm.TECHNIQUES.length - off.length} of ${Reharm.TECHNIQUES.length} techniques`}>
      <div className="controls">
        <Button onClick={() => set([])}>all</Button>
        <Button onClick={() => set(Reharm.TECHNIQUES.map((t) => t.id))}>none</Button>
      </div>
      {Reharm.TECHNIQUES.map((t) => (
        <Check
          key={t.id}
          on={!off.includes(t.id)}
          title={`${t.explanation} (${t.source})`}
          set={(on) => set(on ? off.filter((x) => x !== t.id) : [...off, t.id])}
        >
          {t.title}
        </Check>
      ))}
    </Fold>
  );
}
