import { memo, useState } from "react";
import {
  positionText,
  RULES,
  typesetNames,
  type Edit,
  type Finding,
  type FindingPlace,
  type Meter,
  type Section,
} from "../../core/src/index";
import type { SectionData } from "../store/sectionData";
import { chooseNotes } from "../store/selection";
import { edit } from "../store/song";
import { FixLink } from "./FixLink";

const SHOWN = 25;

/** Findings as cards: an edge as grave as they are, the place first, the rule small, one row a fix. */
export function FindingList({ data, findings, all }: { data: SectionData; findings: readonly Finding[]; all: readonly Finding[] }) {
  const [more, setMore] = useState(false);
  const rest = findings.length - SHOWN;
  return (
    <ol className="findings">
      {(more ? findings : findings.slice(0, SHOWN)).map((f) => (
        <Card key={f.id} finding={f} number={all.indexOf(f) + 1} section={data.section} meter={data.meter} names={namesOf(f, data)} />
      ))}
      {rest > 0 && !more && (
        <li>
          <button type="button" onClick={() => setMore(true)}>
            Show {rest} more
          </button>
        </li>
      )}
    </ol>
  );
}

/** Who is concerned, and who of them is muted now. */
const namesOf = (f: Finding, { song }: SectionData): string =>
  song.parts
    .filter((p) => f.where.parts.includes(p.id))
    .map((p) => p.name.split(",")[0]! + (p.muted ? " (muted)" : ""))
    .join(", ");

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
  const rule = RULES.find((r) => r.id === f.rule);
  const [at, setAt] = useState(0);
  const place = f.places[Math.min(at, f.places.length - 1)]!;
  const several = f.places.length > 1;
  const show = (p: FindingPlace) =>
    chooseNotes(
      p.parts[0]!,
      p.notes.filter((n) => !n.includes("@")),
    );
  const walk = (step: 1 | -1) => {
    const next = (Math.min(at, f.places.length - 1) + step + f.places.length) % f.places.length;
    setAt(next);
    show(f.places[next]!);
  };
  // The last fix of several places mends them all.
  const all = several ? f.fixes.slice(f.places[0]!.fixes.length) : [];
  return (
    <li className={`finding ${f.severity}${f.waived !== undefined ? " waived" : ""}`}>
      <p className="finding-head">
        <button type="button" title="Show it in the score" onClick={() => show(place)}>
          <b className="number">{number}</b> {positionText(meter, place.tick)}
          {names && <> · {names}</>}
        </button>
        <span className={`severity ${f.severity}`}>{f.severity}</span>
      </p>
      {several && (
        <p className="finding-places small">
          <button type="button" aria-label="Place before" onClick={() => walk(-1)}>
            ‹
          </button>
          <span className="tabular">
            {f.places.indexOf(place) + 1} of {f.places.length} places
          </span>
          <button type="button" aria-label="Next place" onClick={() => walk(1)}>
            ›
          </button>
        </p>
      )}
      <p>{typesetNames(place.message)}</p>
      <p className="small" title={rule?.explanation}>
        {rule?.title} · {place.amount} · {f.source}
      </p>
      {f.waived !== undefined ? (
        <p className="small">
          Left: “{f.waived}”{" "}
          <button type="button" onClick={() => edit({ do: "unwaive", waiver: f.waiver! })}>
            Judge it again
          </button>
        </p>
      ) : (
        <div className="fixes">
          {[...place.fixes, ...all].map((fix) => (
            <FixLink key={fix.label} fix={fix} id={`${place.id}/${fix.label}`} section={section} meter={meter} tick={place.tick} />
          ))}
          <Leave key={place.id} places={[place]} words={several ? "Leave it here, with a reason" : "Leave, with a reason"} />
          {several && <Leave places={f.places} words={`Leave all ${f.places.length}`} />}
        </div>
      )}
    </li>
  );
}, same);

/** Lets places of a finding stand, with a reason. */
function Leave({ places, words }: { places: readonly FindingPlace[]; words: string }) {
  const [reason, setReason] = useState<string | null>(null);
  if (reason === null)
    return (
      <button type="button" className="quiet" onClick={() => setReason("")}>
        {words}
      </button>
    );
  const leave = (why: string) => {
    const edits = places.map((p): Edit => ({ do: "waive", finding: p.id, reason: why }));
    edit(edits.length === 1 ? edits[0]! : { do: "all", label: "leave them", edits });
  };
  return (
    <input
      autoFocus
      aria-label="Reason for leaving it"
      placeholder="why it may stand"
      value={reason}
      onChange={(e) => setReason(e.target.value)}
      onBlur={() => setReason(null)}
      onKeyDown={(e) => {
        e.stopPropagation();
        if (e.key === "Escape") setReason(null);
        if (e.key === "Enter" && reason.trim()) {
          leave(reason.trim());
          setReason(null);
        }
      }}
    />
  );
}
