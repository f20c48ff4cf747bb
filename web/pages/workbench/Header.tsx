import { memo, useRef, useState } from "react";
import { Link } from "react-router";
import { Key, Meter } from "../../../core/src/index";
import { toggleFit, usePreferences, zoomBy } from "../../app/store/preferences";
import { edit, storedSong, useOfSong, useSong, type SaveStatus } from "../../app/store/song";
import { InPlace } from "../../kit/InPlace";
import { Select } from "../../kit/Select";
import { keyText, plainSigns } from "../../kit/texts";
import { KeyMove, movableKey } from "./KeyMove";
import { KeyOffer } from "./KeyOffer";
import { SectionMenu } from "./SectionMenu";
import { Toggle } from "../../kit/Toggle";
import { Button } from "../../kit/Button";

const STATUS: Record<SaveStatus, string> = {
  saved: "Saved",
  waiting: "Saving …",
  saving: "Saving …",
  away: "Server away: kept in this browser",
  conflict: "Changed elsewhere",
  refused: "Not saved",
};
const KEYS = ["C", "G", "D", "A", "E", "B", "F#", "Db", "Ab", "Eb", "Bb", "F"]
  .flatMap((t) => [`${t} major`, `${t} minor`])
  .map((k) => Key.parse(k))
  .flatMap((k) => (k.ok ? [Key.name(k.value)] : []));
/** Taps that count: the newest of one stretch. */
const TAPS = 9;

/** Title, key, tempo, meter and swing, edited in place; sections; undo; zoom. */
export const Header = memo(function Header() {
  const title = useOfSong((s) => s.title);
  const key = useOfSong((s) => s.key);
  // The key that was typed, while it is asked whether the music goes along.
  const [moving, setMoving] = useState<string | null>(null);
  return (
    <header className="song-head">
      <h1 className="visually-hidden">{title}</h1>
      <Link to="/" className="home" title="All songs" aria-label="All songs">
        <i className="bi-chevron-left" />
      </Link>
      <InPlace label="Title" className="title" value={title} commit={(title) => edit({ do: "setTitle", title })} />
      <span className="head-group">
        <InPlace
          label="Key, for example E♭ major"
          className="strong"
          value={keyText(key)}
          list="keys"
          commit={(text) => {
            const to = movableKey(storedSong(), plainSigns(text));
            if (!to) return edit({ do: "setKey", key: plainSigns(text) });
            setMoving(to);
            return false;
          }}
        />
        <datalist id="keys">
          {KEYS.map((k) => (
            <option key={k} value={keyText(k)} />
          ))}
        </datalist>
        <KeyOffer />
        {moving && <KeyMove to={moving} done={() => setMoving(null)} />}
      </span>
      <TimeFields />
      <SectionMenu />
      <HistoryAndZoom />
    </header>
  );
});

function TimeFields() {
  const tempo = useOfSong((s) => s.tempo);
  const meter = useOfSong((s) => s.meter);
  const { ratio, unit } = useOfSong((s) => s.swing);
  const taps = useRef<number[]>([]);
  const tap = () => {
    taps.current = [...taps.current, performance.now()].slice(-TAPS);
    const tapped = Meter.tapped(taps.current);
    if (tapped) edit({ do: "setTempo", tempo: tapped }, { quiet: taps.current.length > 2 });
  };
  return (
    <span className="head-group">
      <InPlace
        label="Tempo in quarter notes a minute, 20 to 400"
        className="strong"
        value={String(tempo)}
        width={38}
        commit={(t) => edit({ do: "setTempo", tempo: Number(t) })}
        suffix="bpm"
      />
      <Button className="quiet" onClick={tap} title="Tap the tempo, twice or more">
        tap
      </Button>
      <InPlace
        label="Meter, for example 6/8 or 7/8 2+2+3"
        className="strong"
        value={meter}
        commit={(meter) => edit({ do: "setMeter", meter })}
      />
      <span className="muted word">swing</span>
      <InPlace
        label="Swing, 50 to 75 percent"
        className="strong"
        width={26}
        value={String(Math.round(ratio * 1000) / 10)}
        commit={(t) => edit({ do: "setSwing", ratio: Number(t.replace("%", "")) / 100, unit })}
        suffix="%"
      />
      <Select
        label="Swing of"
        value={unit}
        choices={[
          [8, "8ths"],
          [16, "16ths"],
        ]}
        set={(u) => edit({ do: "setSwing", ratio, unit: u as 8 | 16 })}
      />
    </span>
  );
}

/** Whether the song is stored, and in how many windows it is open. */
function Kept() {
  const status = useSong((s) => s.status);
  const windows = useSong((s) => s.windows);
  return (
    <>
      <span className={`status ${status}`} role="status">
        {STATUS[status]}
      </span>
      {windows > 1 && (
        <span className="muted small" title="Each window brings in what the others store.">
          in {windows} windows
        </span>
      )}
    </>
  );
}

function HistoryAndZoom() {
  const { undo, redo } = useSong.getState();
  const canUndo = useSong((s) => s.past.length > 0);
  const canRedo = useSong((s) => s.future.length > 0);
  const whole = usePreferences((s) => s.fit === "section");
  return (
    <span className="head-group end">
      <Button className="quiet" onClick={undo} disabled={!canUndo} aria-label="Undo" title="Undo (Ctrl+Z)">
        <i className="bi-arrow-counterclockwise" /> <span className="undo-word">Undo</span>
      </Button>
      <Button className="quiet" onClick={redo} disabled={!canRedo} aria-label="Redo" title="Redo (Ctrl+Shift+Z)">
        <i className="bi-arrow-clockwise" /> <span className="undo-word">Redo</span>
      </Button>
      <Kept />
      <span className="zoom" role="group" aria-label="Zoom">
        <Button className="quiet" aria-label="Zoom out" title="Zoom out (-)" onClick={() => zoomBy(-1)}>
          −
        </Button>
        <Toggle
          on={whole}
          label="Fit the section to the window"
          title="The whole section in the window (F)"
          press={toggleFit}
        >
          fit
        </Toggle>
        <Button className="quiet" aria-label="Zoom in" title="Zoom in (+)" onClick={() => zoomBy(1)}>
          +
        </Button>
      </span>
    </span>
  );
}
