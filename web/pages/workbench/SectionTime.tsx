import { type Edit, firstOf, Key, nth, type Section, Song, Text } from "../../../core/src/index";
import { move, otherModes } from "../../app/commands/moves";
import { useSelection } from "../../app/store/selection";
import { edit } from "../../app/store/song";
import { AskSelect, type Offer } from "../../kit/AskSelect";
import { InPlace } from "../../kit/InPlace";
import { Select } from "../../kit/Select";
import { keyText } from "../../kit/texts";
import { Button } from "../../kit/Button";

export const SEMITONES = Array.from({ length: 25 }, (_, i) => i - 12);
const STEPS = [-7, -6, -5, -4, -3, -2, -1, 0, 1, 2, 3, 4, 5, 6, 7];
const STEP_NAMES = ["second", "third", "fourth", "fifth", "sixth", "seventh", "octave"];
const stepsText = (n: number): string =>
  `${n > 0 ? "up" : "down"} ${Text.withArticle(nth(STEP_NAMES, Math.abs(n) - 1))}`;

/** "F major, up 2": where a key comes to by so many semitones. */
export const keyMove = (home: Key, n: number): string =>
  `${keyText(Key.name(Key.transpose(home, n)))}, ${n > 0 ? "up" : "down"} ${Math.abs(n)}`;

/**
 * Key, tempo and meter of the section, where they are not the song's: edited in place, given back by what the song has.
 */
export function SectionTime({ song, section }: { song: Song; section: Section }) {
  const set = (change: Omit<Extract<Edit, { do: "setSectionTime" }>, "do" | "section">) =>
    edit({ do: "setSectionTime", section: section.id, ...change });
  const swing = section.swing ?? song.swing;
  const beat = firstOf(Song.meterOf(song, section).beats).duration;
  const times = song.form.filter((p) => p.sectionId === section.id).length;
  const home = Song.keyOf(song, section);
  const own = section.key ?? section.tempo ?? section.meter ?? section.swing;
  return (
    <span className="controls small" role="group" aria-label={`All of ${section.name}`}>
      <span className="muted">
        {section.name}
        {times > 1 ? `, ${Text.counted(times, "pass", "passes")}` : ""}:
      </span>
      <InPlace
        label={`Key of ${section.name}`}
        value={keyText(section.key ?? song.key)}
        commit={(key) => set({ key: key.replace("♭", "b").replace("♯", "#") })}
      />
      <InPlace
        label={`Tempo of ${section.name}`}
        width={34}
        value={String(section.tempo ?? song.tempo)}
        commit={(t) => set({ tempo: Number(t) })}
        suffix="bpm"
      />
      <InPlace
        label={`Meter of ${section.name}`}
        value={section.meter ?? song.meter}
        commit={(meter) => set({ meter })}
      />
      <InPlace
        label={`Swing of ${section.name}, 50 to 75 percent of ${swing.unit === 8 ? "eighths" : "sixteenths"}`}
        width={28}
        value={String(Math.round(swing.ratio * 1000) / 10)}
        commit={(t) => set({ swing: { ...swing, ratio: Number(t.replace("%", "")) / 100 } })}
        suffix="% swing"
      />
      <Select<8 | 16>
        label={`Swing of ${section.name} is of`}
        value={swing.unit}
        choices={[
          [8, "8ths"],
          [16, "16ths"],
        ]}
        set={(unit) => set({ swing: { ...swing, unit } })}
      />
      <InPlace
        label={`Beats of pickup before bar 1 of ${section.name}`}
        width={28}
        value={String((section.pickup ?? 0) / beat)}
        commit={(t) => set({ pickup: Math.round(Number(t) * beat) || null })}
        suffix="beats pickup"
      />
      <SectionMoves section={section} home={home} />
      {own !== undefined && (
        <Button onClick={() => set({ key: null, tempo: null, meter: null, swing: null })}>As the song</Button>
      )}
    </span>
  );
}

/**
 * Where the music of a section can be moved: to another key, along its scale, to the other mode. It only asks; nothing
 * stays chosen.
 */
function SectionMoves({ section, home }: { section: Section; home: Key }) {
  const here = useSelection((s) => s.here);
  const what = here ? "this pass" : section.name;
  const toKey = (semitones: number): Offer => {
    const key = Key.name(Key.transpose(home, semitones));
    const said = `${section.name} went to ${keyText(key)}`;
    return {
      shown: keyMove(home, semitones),
      go: () => move({ do: "transposeSection", section: section.id, key, semitones }, said),
    };
  };
  const alongScale = (steps: number): Offer => ({
    shown: stepsText(steps),
    go: () =>
      move(
        { do: "shiftInScale", section: section.id, steps },
        `${Text.capital(what)} went ${stepsText(steps)} along the scale`,
      ),
  });
  const toMode = ({ key, title }: ReturnType<typeof otherModes>[number]): Offer => ({
    shown: `${keyText(key)}, the ${title}`,
    go: () =>
      move({ do: "changeMode", section: section.id, key }, `${section.name} is in ${keyText(key)}, degree by degree`),
  });
  return (
    <AskSelect
      label={`Move ${section.name}`}
      words="move"
      groups={[
        { title: `${section.name} to another key`, offers: SEMITONES.filter(Boolean).map(toKey) },
        { title: `${what} along the scale`, offers: STEPS.filter(Boolean).map(alongScale) },
        { title: `${section.name} into the other mode`, offers: otherModes(Key.name(home)).map(toMode) },
      ]}
    />
  );
}
