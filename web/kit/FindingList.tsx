import FormControl from "react-bootstrap/FormControl";
import { memo, useEffect, useRef, useState } from "react";
import {
  Check,
  type Edit,
  type Finding,
  type FindingPlace,
  firstOf,
  type Fix,
  Meter,
  nth,
  Pitch,
  type Section,
  sure,
} from "../../core/src/index";
import type { SectionData } from "../app/store/sectionData";
import { around } from "../app/commands/audition";
import { hearFound, showFound } from "../app/commands/findings";
import { withLog } from "../app/commands/log";
import { useSelection } from "../app/store/selection";
import { edit, useSong } from "../app/store/song";
import { workers } from "../app/workers/sync";
import { FixLink } from "./FixLink";
import { HearButton } from "./HearTake";
import { Select } from "./Select";
import { Button } from "./Button";

const SHOWN = 25;

/** Findings as cards: an edge as grave as they are, the place first, the rule small, one row a fix. */
export function FindingList({
  data,
  findings,
  all,
}: {
  data: SectionData;
  findings: readonly Finding[];
  all: readonly Finding[];
}) {
  const [more, setMore] = useState(false);
  const rest = findings.length - SHOWN;
  return (
    <ol className="findings">
      {(more ? findings : findings.slice(0, SHOWN)).map((f) => (
        <Card
          key={f.id}
          finding={f}
          number={all.indexOf(f) + 1}
          section={data.section}
          meter={data.meter}
          names={namesOf(f, data)}
        />
      ))}
      {rest > 0 && !more && (
        <li>
          <Button onClick={() => setMore(true)}>Show {rest} more</Button>
        </li>
      )}
    </ol>
  );
}

/** Names that stand in the head of a card; more of them are counted. */
const NAMES = 3;

/** Who is concerned, and who of them is muted now. */
function namesOf(f: Finding, { song }: SectionData): string {
  const names = song.parts
    .filter((p) => f.where.parts.includes(p.id))
    .map((p) => firstOf(p.name.split(",")) + (p.muted ? " (muted)" : ""));
  return names.length > NAMES + 1
    ? `${names.slice(0, NAMES).join(", ")} and ${names.length - NAMES} more`
    : names.join(", ");
}

interface CardProps {
  finding: Finding;
  number: number;
  section: Section;
  meter: Meter;
  names: string;
}

// Findings arrive anew from the worker at every step of a drag: only those that say something else are drawn again.
const same = (a: CardProps, b: CardProps): boolean =>
  a.number === b.number &&
  a.section.id === b.section.id &&
  a.section.bars === b.section.bars &&
  a.meter === b.meter &&
  a.names === b.names &&
  JSON.stringify(a.finding) === JSON.stringify(b.finding);

const Card = memo(function Card({ finding: f, number, section, meter, names }: CardProps) {
  const rule = Check.RULES.find((r) => r.id === f.rule);
  const found = useSelection((s) => s.found);
  const [last, setLast] = useState(0);
  const shown = f.places.findIndex((p) => p.id === found);
  const at = shown < 0 ? Math.min(last, f.places.length - 1) : shown;
  const place = nth(f.places, at);
  const several = f.places.length > 1;
  const card = useRef<HTMLLIElement>(null);
  useEffect(() => {
    if (shown >= 0) card.current?.scrollIntoView({ block: "nearest" });
  }, [shown]);
  const go = (to: number) => {
    setLast(to);
    showFound(nth(f.places, to));
  };
  const walk = (step: 1 | -1) => go((at + step + f.places.length) % f.places.length);
  return (
    <li
      ref={card}
      className={`finding ${f.severity}${f.waived !== undefined ? " waived" : ""}${shown >= 0 ? " current" : ""}`}
    >
      <p className="finding-head">
        <Button title="Show it in the score" onClick={() => go(at)}>
          <b className="number">{number}</b> {Meter.position(meter, place.tick)}
          {names && <> · {names}</>}
        </Button>
        <span className={`severity ${f.severity}`}>{f.severity}</span>
      </p>
      {several && (
        <p className="finding-places small">
          <Button aria-label="Place before" onClick={() => walk(-1)}>
            ‹
          </Button>
          <span className="tabular">
            {at + 1} of {f.places.length} places
          </span>
          <Button aria-label="Next place" onClick={() => walk(1)}>
            ›
          </Button>
        </p>
      )}
      <p>{Pitch.typesetAll(place.message)}</p>
      <p className="small" title={rule?.explanation}>
        {rule?.title} · {place.amount} · {f.source}
      </p>
      <HearPlace place={place} section={section} meter={meter} />
      {f.waived !== undefined ? (
        <p className="small">
          Left: “{f.waived}”{" "}
          <Button onClick={() => edit({ do: "unwaive", waiver: sure(f.waiver) })}>Judge it again</Button>
        </p>
      ) : (
        <div className="fixes">
          <Fixes finding={f} place={place} fixes={[...place.fixes, ...f.forAll]} section={section} meter={meter} />
          <Leave key={place.id} finding={f} place={place} names={names} />
        </div>
      )}
    </li>
  );
}, same);

interface FixesProps {
  finding: Finding;
  place: FindingPlace;
  fixes: readonly Fix[];
  section: Section;
  meter: Meter;
}

/** Ways out, tried before they are offered: those that would bring something as bad say what, and come last. */
function Fixes({ finding, place, fixes, section, meter }: FixesProps) {
  const version = useSong((s) => s.version);
  const [tried, setTried] = useState<Record<string, string | null> | null>(null);
  useEffect(() => {
    let wanted = true;
    void workers.writer.tried(finding, place.id).then((found) => wanted && setTried(found));
    return () => {
      wanted = false;
    };
    // A finding arrives anew with every judgement; what was tried holds for the song as it is.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [version, finding.id, place.id]);
  // Until they are tried, and where nothing could be tried, all are offered.
  const known = tried && Object.keys(tried).length ? tried : null;
  const shown = known
    ? fixes
        .filter((x) => x.label in known)
        .sort((a, b) => Number(known[a.label] !== null) - Number(known[b.label] !== null))
    : fixes;
  return shown.map((fix) => (
    <div key={fix.label}>
      <FixLink fix={fix} id={`${place.id}/${fix.label}`} section={section} meter={meter} tick={place.tick} />
      {known?.[fix.label] && (
        <span className="small brings-too"> would bring: {Pitch.typesetAll(sure(known[fix.label]))}</span>
      )}
    </div>
  ));
}

/** The place as it sounds: with everybody, or the parts concerned alone. */
function HearPlace({ place, section, meter }: { place: FindingPlace; section: Section; meter: Meter }) {
  const { from, to } = around(section, meter, place.tick);
  return (
    <p className="finding-hear small">
      <HearButton id={`${place.id}/context`} hear={(id) => hearFound(place, false, id, { from, to })}>
        Hear it
      </HearButton>
      {place.parts.length > 0 && (
        <HearButton id={`${place.id}/alone`} hear={(id) => hearFound(place, true, id, { from, to })}>
          These parts alone
        </HearButton>
      )}
    </p>
  );
}

/** Characters of a line in the log. */
const MOST_SAID = 400;

type Scope = "here" | "all" | "part" | "song";

/**
 * Lets a finding stand, with a reason: here, in all its places, for its part in the whole song, or its rule in the
 * song.
 */
function Leave({ finding, place, names }: { finding: Finding; place: FindingPlace; names: string }) {
  const [reason, setReason] = useState<string | null>(null);
  const [scope, setScope] = useState<Scope>("here");
  if (reason === null)
    return (
      <Button className="quiet" onClick={() => setReason("")}>
        Leave, with a reason
      </Button>
    );
  const leave = (why: string) => {
    const all = finding.places.map((p): Edit => ({ do: "waive", finding: p.id, duration: p.duration, reason: why }));
    const what = (): Edit => {
      if (scope === "here") return { do: "waive", finding: place.id, duration: place.duration, reason: why };
      if (scope === "all") return { do: "all", label: "leave them", edits: all };
      return { do: "waive", rule: finding.rule, parts: scope === "part" ? place.parts : [], reason: why };
    };
    const where = { section: finding.where.section, parts: place.parts, tick: Math.max(0, place.tick) };
    edit(withLog(what(), { what: `Left standing: ${place.message}`.slice(0, MOST_SAID), why, ...where }));
    setReason(null);
  };
  const choices: (readonly [Scope, string])[] = [
    ["here", "this place"],
    ...(finding.places.length > 1 ? [["all", `these ${finding.places.length} places`] as const] : []),
    ...(place.parts.length ? [["part", `${names}, in the whole song`] as const] : []),
    ["song", "everyone, in the whole song"],
  ];
  return (
    <span className="leave" onKeyDown={(e) => e.key === "Escape" && setReason(null)}>
      <FormControl
        bsPrefix="field"
        autoFocus
        aria-label="Reason for leaving it"
        placeholder="why it may stand"
        value={reason}
        onChange={(e) => setReason(e.target.value)}
        onKeyDown={(e) => {
          e.stopPropagation();
          if (e.key === "Escape") setReason(null);
          if (e.key === "Enter" && reason.trim()) leave(reason.trim());
        }}
      />
      <Select label="Holds for" value={scope} choices={choices} set={setScope} />
      <Button disabled={!reason.trim()} onClick={() => leave(reason.trim())}>
        Leave it
      </Button>
    </span>
  );
}
