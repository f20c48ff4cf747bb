import { Meter, type Agreement, type Edit, firstOf, type Part, type WeavePlace } from "../../../core/src/index";
import { acceptEdit, auditionEdit } from "../../app/commands/audition";
import { keepNotes } from "../../app/commands/bass";
import type { SectionData } from "../../app/store/sectionData";
import { say } from "../../app/store/song";
import { HearTake } from "../../kit/HearTake";
import { workers } from "../../app/workers/sync";
import type { AccentView } from "../../app/workers/music.worker";

/** The edit that writes a bass that weaves between the accents; null (and a message) where none can be written. */
async function weave(section: string, part: string): Promise<Edit | null> {
  const made = await workers.writer.bass({ section, part, style: "weave" });
  if (!made.ok) {
    say(made.error);
    return null;
  }
  return {
    do: "all",
    label: "weave",
    edits: [
      { do: "setPlaying", part, section, bass: { style: "weave" } },
      { do: "setNotes", section, part, notes: firstOf(made.value).notes },
    ],
  };
}

/**
 * Two ways out where accents just miss each other: a bass that weaves between them, or one pattern that all agree on.
 */
export function WaysOut({
  data,
  view: { agreed, plan },
  bass,
}: {
  data: SectionData;
  view: AccentView;
  bass: Part | undefined;
}) {
  return (
    <>
      <h3>{agreed ? "Where accents just miss each other: two ways out" : "A bass that weaves"}</h3>
      {bass && plan.length > 0 && <Weaving data={data} plan={plan} part={bass.id} />}
      {agreed ? (
        <Agreeing data={data} agreed={agreed} part={bass?.id ?? ""} />
      ) : (
        <p className="small">All accents fall together or well apart: nothing has to be agreed on.</p>
      )}
    </>
  );
}

function Weaving({ data, plan, part }: { data: SectionData; plan: readonly WeavePlace[]; part: string }) {
  const section = data.section.id;
  const hear = (change: Edit | null) =>
    change && auditionEdit(change, "the bass weaves", "weave", { from: 0, to: data.length });
  const take = (change: Edit | null) =>
    change &&
    acceptEdit({ do: "all", label: "the bass weaves", edits: [keepNotes(section, part, "before weaving"), change] });
  return (
    <>
      <p className="offer-head">
        <b>The bass weaves</b>
        <HearTake
          id="weave"
          name="the bass weaves"
          hear={() => weave(section, part).then(hear)}
          take={() => weave(section, part).then(take)}
        />
      </p>
      <ul className="plain-list small weave">
        {plan.map((p) => (
          <li key={p.step} className={p.take ? "" : "left"}>
            <b>{Meter.inBar(data.meter, p.tick)}</b> {p.take ? "play" : "leave"}: {p.why}
          </li>
        ))}
      </ul>
    </>
  );
}

function Agreeing({ data, agreed, part }: { data: SectionData; agreed: Agreement; part: string }) {
  // What is shown may be of the moment before: what is heard and taken is worked out for the section as it is.
  const withEdit = async (of: (now: Agreement) => Edit | null | undefined, act: (change: Edit) => unknown) => {
    const now = (await workers.judge.accents(data.section.id, part))?.agreed;
    const change = now && of(now);
    if (change) act(change);
  };
  const buttons = (id: string, label: string, of: (now: Agreement) => Edit | null | undefined) => (
    <HearTake
      id={id}
      name={label}
      hear={() => withEdit(of, (change) => auditionEdit(change, label, id, { from: 0, to: data.length }))}
      take={() => withEdit(of, acceptEdit)}
    />
  );
  return (
    <>
      <p className="offer-head">
        <b>All agree on one pattern</b>
        {agreed.players.some((p) => p.edit) && buttons("agree", "one accent pattern", (now) => now.edit)}
      </p>
      <ul className="plain-list notes-to-players">
        {agreed.players.map((p) => (
          <li key={p.id}>
            “{p.note}”{" "}
            {p.edit ? (
              buttons(`agree:${p.id}`, `${p.name} changes`, (now) => now.players.find((x) => x.id === p.id)?.edit)
            ) : (
              <span className="small">To be said: this part is made by a rule.</span>
            )}
          </li>
        ))}
      </ul>
    </>
  );
}
