import { useEffect, useState } from "react";
import { useBassPart } from "../../app/commands/bass";
import type { SectionData } from "../../app/store/sectionData";
import { workers } from "../../app/workers/sync";
import type { AccentView } from "../../app/workers/music.worker";
import { Accents } from "./Accents";
import { Kicks } from "./Kicks";
import { Reference } from "./Reference";
import { WaysOut } from "./WaysOut";

/** Accents of all players in the bar of the section, measured in the worker. */
export function AccentsTab({ data }: { data: SectionData }) {
  const bass = useBassPart(data.song);
  const [view, setView] = useState<AccentView | null>(null);
  const part = bass?.id ?? "";
  useEffect(() => {
    let gone = false;
    void workers.judge.accents(data.section.id, part).then((found) => {
      if (!gone) setView(found);
    });
    return () => {
      gone = true;
    };
  }, [data.song, data.section.id, part]);
  if (!view) return <p className="muted">Measuring …</p>;
  if (!view.map.rows.length) return <p className="small">Nothing plays yet: paint drums or write a line.</p>;
  return (
    <>
      <Accents data={data} map={view.map} />
      <WaysOut data={data} view={view} bass={bass} />
      <Kicks data={data} />
      <Reference data={data} map={view.map} />
    </>
  );
}
