import { useMemo } from "react";
import { Link } from "react-router";
import { Notation, type PageSection, Pitch, Singer, type SingerPage, type Song } from "../../core/src/index";
import type { Paper } from "../score/pageStaves";
import { sheetSymbols } from "../score/staffParts";
import type { StaffPart } from "../score/rows";
import { keyText } from "../kit/texts";
import { factsText, PageHead, Staves } from "./Paper";

/** Singers who have a part, by the pages they get. */
export const singersWithPages = (song: Song): { id: string; name: string; page: SingerPage }[] =>
  song.singers.flatMap((s) => {
    const page = Singer.page(song, s.id);
    return page.ok ? [{ id: s.id, name: s.name, page: page.value }] : [];
  });

/** A page for each singer. */
export function SingersPages({ song, paper, left }: { song: Song; paper: Paper; left: readonly string[] }) {
  const singers = useMemo(() => singersWithPages(song), [song]);
  if (!singers.length)
    return (
      <p className="message">
        No singer has a part yet. <Link to={`/songs/${song.id}/lines`}>In Lines, under Singers,</Link> say who sings
        what.
      </p>
    );
  return singers.map(({ id, page }) => !left.includes(id) && <Page key={id} song={song} page={page} paper={paper} />);
}

function Page({ song, page, paper }: { song: Song; page: SingerPage; paper: Paper }) {
  const voice = Singer.VOICES.find((v) => v.id === page.voice)?.title ?? page.voice;
  return (
    <PageHead
      song={song}
      paper={paper}
      label={`Page for ${page.singer}`}
      reader={page.singer}
      note={voice.toLowerCase()}
      facts={factsText(page.key, song)}
      form={page.form.join(" – ")}
    >
      {page.sections.map((section, i) => (
        <Section
          key={section.section}
          song={song}
          page={page}
          section={section}
          paper={paper}
          last={i === page.sections.length - 1}
          time={section.meter !== page.sections[i - 1]?.meter}
        />
      ))}
      <footer className="small">
        ’ breathe · small notes: the tune. Singing high or loud for long tires the voice: warm up, take breaks.
      </footer>
    </PageHead>
  );
}

/** Staves on singers' pages: large enough to be read at arm's length. */
const SCALE = 0.86;

/** Staves of one section: the tune small, the own line under it. */
function staffParts(song: Song, section: PageSection, part: string): StaffPart[] {
  const tune = section.tune === null ? null : Notation.engrave(song, section.section, section.tune, { written: true });
  const own = Notation.engrave(song, section.section, part, { written: true });
  return [
    ...(tune?.ok ? [{ ...tune.value, small: true, staves: tune.value.staves.map(withoutWords) }] : []),
    ...(own.ok ? [{ ...own.value, breaths: section.breaths }] : []),
  ];
}

/** Words stand under the own line alone. */
const withoutWords = (staff: StaffPart["staves"][number]): StaffPart["staves"][number] => ({
  ...staff,
  pickup: staff.pickup.map(({ words: _, ...c }) => c),
  measures: staff.measures.map((bar) => bar.map(({ words: _, ...c }) => c)),
});

function Section({
  song,
  page,
  section,
  paper,
  last,
  time,
}: {
  song: Song;
  page: SingerPage;
  section: PageSection;
  paper: Paper;
  last: boolean;
  time: boolean;
}) {
  const parts = useMemo(() => staffParts(song, section, page.part), [song, section, page.part]);
  const other = section.key !== page.key || section.meter !== song.meter || section.tempo !== song.tempo;
  return (
    <section className="page-section" aria-label={section.name}>
      <h2>
        {section.name}
        {other && (
          <span className="small">
            {" "}
            {keyText(section.key)}, {section.meter}, ♩ = {section.tempo}
          </span>
        )}
      </h2>
      {section.sings ? (
        section.entrances.map((e) => (
          <p key={e.tick} className="entrance small">
            Enters in {Pitch.typesetAll(e.words)}.
          </p>
        ))
      ) : (
        <p className="entrance small">Does not sing here: {section.bars} bars.</p>
      )}
      <Staves
        parts={parts}
        label={`${section.name}, ${page.partName}`}
        paper={paper}
        scale={SCALE}
        bars={section.bars}
        symbols={sheetSymbols(section.chords, (s) => s)}
        closes={last}
        time={time}
      />
    </section>
  );
}
