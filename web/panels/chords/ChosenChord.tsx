import {
  categoryTitle,
  chordSymbol,
  COLORS,
  describeChange,
  hasColor,
  keyName,
  parseChord,
  rootPc,
  mod,
  toggleColor,
  transposeNote,
  typeset,
  typesetNames,
  withBass,
  type Chord,
  type Color,
} from "../../../core/src/index";
import type { ScoreData } from "../../score/data";
import { useSong } from "../../store/song";
import { useView } from "../../store/view";
import { ChordName } from "../../ui/ChordName";
import { chordsNow, sound } from "./put";

const COLOR_LABELS: Record<Color, string> = {
  seventh: "7",
  ninth: "9",
  thirteenth: "13",
  sixth: "6",
  sus4: "sus4",
  sus2: "sus2",
  third: "3",
};

/** The chord in focus: what it is, why it works, and what can be changed in it at once. */
export function ChosenChord({ data }: { data: ScoreData }) {
  const { chord: id, chords, harmony, set } = useView();
  const edit = useSong((s) => s.edit);
  const event = data.section.chords.find((c) => c.id === id);
  if (!event) return null;
  const parsed = event.symbol === "N.C." ? null : parseChord(event.symbol);
  const chord = parsed?.ok ? parsed.value : null;
  const found = harmony?.chords.find((c) => c.id === event.id && c.symbol === event.symbol);
  const sounding = data.sounding.get(event.id);
  const many = chords.length > 1 && chords.includes(event.id);
  // What is drawn may be a moment behind: a change starts from the chord as it is stored now.
  const change = (make: (chord: Chord) => Chord) => {
    const stored = parseChord(chordsNow(data.section.id).find((c) => c.id === event.id)?.symbol ?? "");
    if (!stored.ok) return;
    const symbol = chordSymbol(make(stored.value));
    if (edit({ do: "setChord", section: data.section.id, chord: event.id, symbol })) sound(useSong.getState().song!, symbol);
  };
  const cadence = harmony?.cadences.find((c) => c.to === event.id);
  const region = harmony?.regions.find((r) => found?.elsewhere && r.key === found.key);
  return (
    <section className="chosen-chord" aria-label="Chosen chord">
      <p className="chosen-line">
        <ChordName symbol={event.symbol} />
        {found && found.category !== "none" && (
          <span className="roman-line">
            <b className="roman">{typeset(found.roman)}</b> {found.function}
            {found.category === "diatonic" ? "" : `, ${categoryTitle(found.category)}`}
            {found.also.length > 0 && `, also ${found.also.slice(0, 2).map(categoryTitle).join(", ")}`}
          </span>
        )}
      </p>
      {sounding && sounding !== event.symbol && (
        <p className="small">
          With the bass as written it sounds as <ChordName symbol={sounding} />.
        </p>
      )}
      {found && <p className="why">{found.explanation}</p>}
      {region && <p className="why">{region.text}.</p>}
      {found && found.outside.length > 0 && (
        <ul className="outside">
          {found.outside.map((o) => (
            <li key={o.note}>
              <b>{typeset(o.note)}</b>, {o.what}
              {o.wants === o.note ? "" : `: wants to go to ${typeset(o.wants)}${o.arrives ? ", and does" : ""}`}.
            </li>
          ))}
        </ul>
      )}
      {event.why && event.why.id !== "user" && <p className="small">Chosen because: {describeChange(event.why)}.</p>}
      {cadence && <p className="small">{typesetNames(cadence.text)}.</p>}
      {event.readings && (
        <p className="readings" role="group" aria-label="Readings">
          <span className="muted">Not sure yet. It can be read as </span>
          {event.readings.map((r) => (
            <button key={r} type="button" aria-pressed={r === event.symbol} onClick={() => (r === event.symbol ? null : settle(r))}>
              <ChordName symbol={r} />
            </button>
          ))}
          <button type="button" onClick={() => edit({ do: "setReadings", section: data.section.id, chord: event.id, readings: null })}>
            settled
          </button>
        </p>
      )}
      {chord && !many && (
        <div className="colors" role="group" aria-label="Change the chord where it stands">
          {COLORS.map((color) => (
            <button
              key={color}
              type="button"
              aria-pressed={hasColor(chord, color)}
              title={`${color} ${hasColor(chord, color) ? "off" : "on"}: ${chordSymbol(toggleColor(chord, color, data.key))}`}
              onClick={() => change((c) => toggleColor(c, color, data.key))}
            >
              {COLOR_LABELS[color]}
            </button>
          ))}
          <label>
            <span className="muted">over</span>{" "}
            <select
              aria-label="Bass"
              value={chord.bass ?? chord.root}
              onChange={(e) => {
                const bass = e.target.value;
                change((c) => withBass(c, bass));
              }}
            >
              {basses(chord.root, rootPc(chord), data, chord.bass).map((n) => (
                <option key={n} value={n}>
                  {typeset(n)}
                </option>
              ))}
            </select>
          </label>
          <button
            type="button"
            aria-pressed={event.pinned ?? false}
            title="Pinned chords stay when progressions are made (P)"
            onClick={() => edit({ do: "pinChords", section: data.section.id, chords: [event.id], pinned: !event.pinned })}
          >
            pin
          </button>
        </div>
      )}
      {many && <GroupTools data={data} ids={chords} />}
      {!many && (
        <p className="small hint-line">
          {keyName(data.key)}. Shift and arrows choose more chords.{" "}
          <button type="button" onClick={() => set({ chord: null, chords: [] })}>
            done
          </button>
        </p>
      )}
    </section>
  );

  function settle(symbol: string): void {
    const readings = event!.readings!;
    edit({
      do: "all",
      label: "reading",
      edits: [
        { do: "setChord", section: data.section.id, chord: event!.id, symbol },
        { do: "setReadings", section: data.section.id, chord: event!.id, readings },
      ],
    });
    sound(useSong.getState().song!, symbol);
  }
}

/** The twelve notes as basses: the chord's and the key's names first. */
function basses(root: string, pc: number, data: ScoreData, bass?: string): string[] {
  const names = [root, ...(bass ? [bass] : []), ...data.key.scale];
  const steps: [number, number][] = [
    [1, 1],
    [1, 2],
    [2, 3],
    [2, 4],
    [3, 5],
    [4, 6],
    [4, 7],
    [5, 8],
    [5, 9],
    [6, 10],
    [6, 11],
  ];
  for (const [letters, semitones] of steps) names.push(transposeNote(root, letters, semitones));
  const seen = new Set<number>();
  return names.filter((n) => {
    const value = mod(pitch(n) - pc, 12);
    if (seen.has(value)) return false;
    seen.add(value);
    return true;
  });
}

const pitch = (name: string): number => {
  const chord = parseChord(name);
  return chord.ok ? rootPc(chord.value) : 0;
};

/** What can be done with several chords at once. */
function GroupTools({ data, ids }: { data: ScoreData; ids: string[] }) {
  const edit = useSong((s) => s.edit);
  const section = data.section.id;
  const chosen = data.section.chords.filter((c) => ids.includes(c.id));
  const end = Math.max(...chosen.map((c) => c.start + c.duration));
  const move = (by: "scale" | "semitone", steps: number) => edit({ do: "moveChords", section, chords: ids, by, steps });
  const arrange = (how: "reverse" | "swap" | "double" | "halve" | "remove") => edit({ do: "arrangeChords", section, chords: ids, how });
  return (
    <div className="group-tools" role="group" aria-label={`${ids.length} chosen chords`}>
      <p className="small">{ids.length} chords chosen</p>
      <div>
        <span className="muted">along the scale</span>
        <button type="button" title="Down a scale step" onClick={() => move("scale", -1)}>
          −1
        </button>
        <button type="button" title="Up a scale step" onClick={() => move("scale", 1)}>
          +1
        </button>
        <span className="muted">by semitones</span>
        <button type="button" title="Down a semitone" onClick={() => move("semitone", -1)}>
          −1
        </button>
        <button type="button" title="Up a semitone" onClick={() => move("semitone", 1)}>
          +1
        </button>
      </div>
      <div>
        <button
          type="button"
          onClick={() => edit({ do: "copyChords", section, chords: ids, to: end })}
          title="Writes them again right after, over what stands there"
        >
          repeat
        </button>
        <button
          type="button"
          onClick={() => edit({ do: "copyChords", section, chords: ids })}
          title="Writes them again at the end of the section"
        >
          copy to the end
        </button>
        <button type="button" onClick={() => arrange("reverse")}>
          reverse
        </button>
        <button type="button" disabled={ids.length !== 2} onClick={() => arrange("swap")}>
          swap
        </button>
      </div>
      <div>
        <button type="button" title="Each lasts half as long, and the row is played twice" onClick={() => arrange("double")}>
          twice as fast
        </button>
        <button type="button" title="Every second chord goes, the others last twice as long" onClick={() => arrange("halve")}>
          half as fast
        </button>
        <button type="button" onClick={() => edit({ do: "pinChords", section, chords: ids, pinned: !chosen.every((c) => c.pinned) })}>
          {chosen.every((c) => c.pinned) ? "unpin" : "pin"}
        </button>
        <button type="button" onClick={() => arrange("remove")}>
          delete
        </button>
      </div>
    </div>
  );
}
