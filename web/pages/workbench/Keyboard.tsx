import { memo } from "react";
import { Chord, firstOf, Harmony, Key, type Midi, Pitch } from "../../../core/src/index";
import { soundNote, useSound } from "../../app/audio/sound";
import { useVoicePart } from "../../app/commands/voicings";
import { press, pressKey, release, usePlayed } from "../../app/input/played";
import { useResults } from "../../app/store/results";
import type { SectionData } from "../../app/store/sectionData";
import { useSelection } from "../../app/store/selection";
import type { Sounding } from "./sounding";

const LOW: Midi = 36;
const HIGH: Midi = 84;
const KEYS = Array.from({ length: HIGH - LOW + 1 }, (_, i) => LOW + i);
const isBlack = (m: Midi): boolean => [1, 3, 6, 8, 10].includes(Pitch.mod(m, 12));
const WHITES = KEYS.filter((m) => !isBlack(m));
/** Width of a white key, of a hundred. */
const WIDTH = 100 / WHITES.length;
/** Middle of a key, of a hundred: a black one stands between two white ones. */
const middle = (m: Midi): number => (isBlack(m) ? WHITES.filter((w) => w < m).length : WHITES.indexOf(m) + 0.5) * WIDTH;
const dotAt = (m: Midi) => ({ left: `${middle(m)}%`, top: isBlack(m) ? "36%" : "78%" });
/** The octave in which a chord's tensions are shown. */
const COLOR_OCTAVE: Midi = 72;

/** A keyboard that shows what sounds, and plays: alone, into the chord that is collected, or into what is recorded. */
export function Keyboard({ data, sounding }: { data: SectionData; sounding: readonly Sounding[] }) {
  const does = usePlayed((s) => s.screenKeys);
  const held = usePlayed((s) => s.held);
  const collected = usePlayed((s) => s.notes);
  const part = useVoicePart(data.song)?.id ?? firstOf(data.song.parts).id;
  let played: number[];
  if (does === "play") played = held;
  else if (does === "collect") played = collected;
  else played = [];
  return (
    <>
      <svg
        className="keyboard"
        viewBox="0 0 100 12"
        preserveAspectRatio="none"
        role="img"
        aria-label={`Keyboard: ${sounding.map((s) => s.note.pitch).join(" ") || "nothing sounds"}`}
      >
        <Keys part={part} />
      </svg>
      <div className="key-dots" aria-hidden="true">
        {does !== "collect" && <SoundingDots sounding={sounding} />}
        {played
          .filter((m) => m >= LOW && m <= HIGH)
          .map((m) => (
            <span key={m} className="key-dot played" style={dotAt(m)} />
          ))}
        {does !== "collect" && <ColorDots data={data} />}
        {KEYS.filter((m) => m % 12 === 0 && m < HIGH).map((m) => (
          <span key={m} className="key-c" style={{ left: `${middle(m)}%` }}>
            C{m / 12 - 1}
          </span>
        ))}
      </div>
    </>
  );
}

/** The keys under the mouse: they sound in this part's voice where nothing is recorded or collected. */
const Keys = memo(function Keys({ part }: { part: string }) {
  const onKey = (m: Midi) => {
    const { screenKeys: does } = usePlayed.getState();
    if (does === "play") return press(m);
    if (does === "collect") return pressKey(m);
    return void soundNote(part, m);
  };
  const onLeave = (m: Midi) => {
    const { screenKeys: does, held } = usePlayed.getState();
    if (does === "play" && held.includes(m)) release(m);
  };
  const key = (m: Midi) => ({
    "data-key": m,
    onPointerDown: () => onKey(m),
    onPointerUp: () => onLeave(m),
    onPointerLeave: () => onLeave(m),
  });
  return (
    <>
      {WHITES.map((m, i) => (
        <rect key={m} className="white" x={i * WIDTH} y={0} width={WIDTH} height={12} {...key(m)} />
      ))}
      {KEYS.filter(isBlack).map((m) => (
        <rect
          key={m}
          className="black"
          x={middle(m) - WIDTH * 0.32}
          y={0}
          width={WIDTH * 0.64}
          height={7}
          {...key(m)}
        />
      ))}
    </>
  );
});

function SoundingDots({ sounding }: { sounding: readonly Sounding[] }) {
  const byKey = new Map([...sounding].reverse().map((s) => [s.note.midi, s]));
  return [...byKey]
    .filter(([m]) => m >= LOW && m <= HIGH)
    .map(([m, { part, role }]) => (
      <span key={m} className={`key-dot ${part.role}`} style={dotAt(m)}>
        {Pitch.typeset(role?.label ?? "")}
      </span>
    ));
}

/** The chosen chord's tensions and notes to avoid, once each, above its tones. */
function ColorDots({ data }: { data: SectionData }) {
  const id = useSelection((s) => s.chord);
  const key = useResults((s) => s.harmony?.chords.find((c) => c.id === id)?.key);
  const playing = useSound((s) => s.playing);
  const event = data.section.chords.find((c) => c.id === id);
  const chord = event && !playing ? Chord.of(event.symbol) : null;
  if (!chord) return null;
  const local = Key.parse(key ?? "");
  return Harmony.tensions(chord, local.ok ? local.value : data.key).map((t) => (
    <span
      key={t.pc}
      className={`key-dot tension${t.available ? "" : " avoid"}`}
      title={t.rule}
      style={dotAt(COLOR_OCTAVE + Pitch.mod(t.pc, 12))}
    >
      {t.available ? Pitch.typeset(t.role) : "×"}
    </span>
  ));
}
