import FormSelect from "react-bootstrap/FormSelect";
import { type Edit, firstOf, Key, nth, type Section, Song, Text } from "../../../core/src/index";
import { move, otherModes } from "../../app/commands/moves";
import { useSelection } from "../../app/store/selection";
import { edit } from "../../app/store/song";
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
  const semitones = SEMITONES.filter((n) => n !== 0).map((n): [string, string] => [`key:${n}`, keyMove(home, n)]);
  const steps = STEPS.filter((n) => n !== 0).map((n): [string, string] => [`steps:${n}`, stepsText(n)]);
  const modes = otherModes(Key.name(home)).map((m): [string, string] => [
    `mode:${m.key}`,
    `${keyText(m.key)}, the ${m.title}`,
  ]);
  const go = (value: string) => {
    const [way, to] = value.split(":") as [string, string];
    const by = Number(to);
    if (way === "key") {
      const key = Key.name(Key.transpose(home, by));
      move(
        { do: "transposeSection", section: section.id, key, semitones: by },
        `${section.name} went to ${keyText(key)}`,
      );
    }
    if (way === "steps")
      move(
        { do: "shiftInScale", section: section.id, steps: by },
        `${Text.capital(what)} went ${stepsText(by)} along the scale`,
      );
    if (way === "mode")
      move(
        { do: "changeMode", section: section.id, key: to },
        `${section.name} is in ${keyText(to)}, degree by degree`,
      );
  };
  return (
    <FormSelect bsPrefix="select" aria-label={`Move ${section.name}`} value="" onChange={(e) => go(e.target.value)}>
      <option value="">move …</option>
      {(
        [
          [`${section.name} to another key`, semitones],
          [`${what} along the scale`, steps],
          [`${section.name} into the other mode`, modes],
        ] as const
      )
        .filter(([, choices]) => choices.length)
        .map(([title, choices]) => (
          <optgroup key={title} label={title}>
            {choices.map(([value, words]) => (
              <option key={value} value={value}>
                {words}
              </option>
            ))}
          </optgroup>
        ))}
    </FormSelect>
  );
}
