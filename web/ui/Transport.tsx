import { useEffect, useState } from "react";
import { chordAtTick, mod, parseKey, positionText, tensions, typeset, type Midi } from "../../core/src/index";
import { play, playhead, stop, soundNote, useSound } from "../audio/sound";
import { press, release, pressKey, usePlayed } from "../input/played";
import type { ScoreData } from "../score/data";
import { chosenPart } from "../panels/voicings/act";
import { useView } from "../store/view";
import { ChordName } from "./ChordName";

const LOW = 36;
const HIGH = 84;

/** Play, position, and what sounds now: on the keyboard and in words. */
export function Transport({ data, workspace }: { data: ScoreData; workspace: string }) {
  const { playing, loading } = useSound();
  const view = useView();
  const [tick, setTick] = useState<number | null>(null);
  useEffect(() => {
    if (!playing) {
      setTick(null);
      return;
    }
    const timer = setInterval(() => setTick(playhead()), 70);
    return () => clearInterval(timer);
  }, [playing]);

  // Stopped, the keyboard shows the chosen chord, or the chosen note.
  const chosen = data.section.chords.find((c) => c.id === view.chord);
  const note = view.selected.ids.length
    ? data.real.parts.find((p) => p.id === view.selected.part)?.notes.find((n) => n.id === view.selected.ids[0])
    : undefined;
  const at = view.wholeSong && playing ? null : (tick ?? chosen?.start ?? (note ? Math.max(0, note.start) : null));
  const chord = at === null ? null : chordAtTick(data.real.chords, at);
  const sounding =
    at === null
      ? []
      : data.real.parts.flatMap((p) =>
          p.notes
            .filter((n) => n.start <= at && at < n.start + n.duration)
            .map((n) => ({
              note: n,
              part: p,
              role: data.roles
                .get(p.id)!
                .get(n)
                ?.find((s) => s.start <= at && at < s.start + s.duration),
            })),
        );
  const words = data.real.parts
    .filter((p) => p.role !== "drums")
    .map((p) => ({
      name: p.name.split(",")[0]!,
      roles: sounding.filter((s) => s.part.id === p.id).map((s) => typeset(s.role?.label ?? "–")),
    }))
    .filter((w) => w.roles.length);
  const whites: number[] = [];
  for (let m = LOW; m <= HIGH; m++) if (![1, 3, 6, 8, 10].includes(mod(m, 12))) whites.push(m);
  const width = 100 / whites.length;
  const keyPart = chosenPart(data.song)?.id ?? data.song.parts[0]!.id;
  const dot = (m: number) => sounding.find((s) => s.note.midi === m);
  // While chords are played in, a touch of a key adds to the chord; otherwise it only sounds.
  const played = usePlayed((s) => s.notes);
  const collecting = workspace === "chords" && view.chordTab === "write" && view.wayIn === "keys";
  const playingIn = (workspace === "bass" && view.bassTab === "play in") || (workspace === "groove" && view.grooveTab === "play in");
  const held = usePlayed((s) => s.held);
  const onKey = (m: Midi) => (playingIn ? press(m) : collecting ? pressKey(m) : void soundNote(keyPart, m));
  const onLeave = (m: Midi) => playingIn && held.includes(m) && release(m);
  const key = (m: Midi) => ({
    "data-key": m,
    onPointerDown: () => onKey(m),
    onPointerUp: () => onLeave(m),
    onPointerLeave: () => onLeave(m),
  });
  // The chosen chord's tensions and notes to avoid, once each, above its tones.
  const local = parseKey(view.harmony?.chords.find((c) => c.id === chosen?.id)?.key ?? "");
  const colors = !playing && !collecting && chord?.chord && chosen ? tensions(chord.chord, local.ok ? local.value : data.key) : [];

  return (
    <footer className="transport">
      <button
        type="button"
        className="play"
        aria-label={playing ? "Stop" : "Play"}
        title="Space"
        onClick={() => (playing ? stop() : void play())}
      >
        <i className={loading ? "bi-hourglass-split" : playing ? "bi-stop-fill" : "bi-play-fill"} />
      </button>
      <div className="where">
        <b className="tabular">
          {tick === null
            ? chosen
              ? positionText(data.meter, chosen.start)
              : "Stopped"
            : view.wholeSong
              ? "Whole song"
              : positionText(data.meter, Math.floor(tick / 120) * 120)}
        </b>
        <div className="switches">
          <button
            type="button"
            aria-pressed={!view.wholeSong && (view.loop?.on ?? true)}
            title="Loop the section, or the bars chosen in the ruler (L)"
            onClick={() =>
              view.set({
                wholeSong: false,
                loop: view.loop ? { ...view.loop, on: !view.loop.on } : { on: false, from: 0, to: data.length },
              })
            }
          >
            loop
          </button>
          <button
            type="button"
            aria-pressed={view.wholeSong}
            title="Play the whole form once"
            onClick={() => view.set({ wholeSong: !view.wholeSong })}
          >
            whole song
          </button>
          <button type="button" aria-pressed={view.click} title="Metronome" onClick={() => view.set({ click: !view.click })}>
            click
          </button>
          <label title="Tempo for practice; the song keeps its own">
            <span className="visually-hidden">Practice tempo</span>
            <select
              value={view.speed}
              onChange={(e) => {
                const at = playhead();
                view.set({ speed: Number(e.target.value) });
                if (playing) void play(at ?? undefined);
              }}
            >
              {[1, 0.9, 0.8, 0.7, 0.6, 0.5].map((s) => (
                <option key={s} value={s}>
                  {s * 100} %
                </option>
              ))}
            </select>
          </label>
          <button type="button" aria-pressed={view.countIn} title="Count in one bar" onClick={() => view.set({ countIn: !view.countIn })}>
            count-in
          </button>
        </div>
      </div>
      <svg
        className="keyboard"
        viewBox="0 0 100 12"
        preserveAspectRatio="none"
        role="img"
        aria-label={`Keyboard: ${sounding.map((s) => s.note.pitch).join(" ") || "nothing sounds"}`}
      >
        {whites.map((m, i) => (
          <rect key={m} className="white" x={i * width} y={0} width={width} height={12} {...key(m)} />
        ))}
        {Array.from({ length: HIGH - LOW }, (_, i) => LOW + i)
          .filter((m) => !whites.includes(m))
          .map((m) => (
            <rect
              key={m}
              className="black"
              x={whites.filter((w) => w < m).length * width - width * 0.32}
              y={0}
              width={width * 0.64}
              height={7}
              {...key(m)}
            />
          ))}
      </svg>
      <div className="key-dots" aria-hidden="true">
        {Array.from({ length: HIGH - LOW + 1 }, (_, i) => LOW + i).map((m) => {
          const found = collecting ? undefined : dot(m);
          const white = whites.includes(m);
          return (
            found && (
              <span
                key={m}
                className={`key-dot ${found.part.role}`}
                style={{
                  left: `${(white ? whites.indexOf(m) + 0.5 : whites.filter((w) => w < m).length) * width}%`,
                  top: white ? "78%" : "36%",
                }}
              >
                {typeset(found.role?.label ?? "")}
              </span>
            )
          );
        })}
        {(collecting || playingIn) &&
          (playingIn ? held : played)
            .filter((m) => m >= LOW && m <= HIGH)
            .map((m) => {
              const white = whites.includes(m);
              return (
                <span
                  key={`p${m}`}
                  className="key-dot played"
                  style={{
                    left: `${(white ? whites.indexOf(m) + 0.5 : whites.filter((w) => w < m).length) * width}%`,
                    top: white ? "78%" : "36%",
                  }}
                />
              );
            })}
        {colors.map((t) => {
          const m = 72 + mod(t.pc, 12);
          const white = whites.includes(m);
          return (
            <span
              key={`t${t.pc}`}
              className={`key-dot tension${t.available ? "" : " avoid"}`}
              title={t.rule}
              style={{
                left: `${(white ? whites.indexOf(m) + 0.5 : whites.filter((w) => w < m).length) * width}%`,
                top: white ? "78%" : "36%",
              }}
            >
              {t.available ? typeset(t.role) : "×"}
            </span>
          );
        })}
        {[36, 48, 60, 72].map((m) => (
          <span key={`c${m}`} className="key-c" style={{ left: `${(whites.indexOf(m) + 0.5) * width}%` }}>
            C{m / 12 - 1}
          </span>
        ))}
      </div>
      <p className="now">
        {chord ? (
          <>
            {playing ? "Now" : "Here"}: <ChordName symbol={chord.symbol} /> —{" "}
            {words.map((w) => `${w.name} ${w.roles.join(" ")}`).join(", ") || "nothing sounds"}
          </>
        ) : at !== null ? (
          "No chord here"
        ) : (
          "Choose a chord or press Space"
        )}
      </p>
    </footer>
  );
}
