import { useRef } from "react";
import { Link } from "react-router";
import { keyName, parseKey, tappedTempo, type Song } from "../../core/src/index";
import { useSong, type SaveStatus } from "../store/song";
import { useView } from "../store/view";
import { InPlace } from "./InPlace";

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
  .map((k) => parseKey(k))
  .flatMap((k) => (k.ok ? [keyName(k.value)] : []));

export function Header({ song }: { song: Song }) {
  const { edit, undo, redo, status, past, future } = useSong();
  const { zoom, set, section } = useView();
  const taps = useRef<number[]>([]);
  const tap = () => {
    taps.current = [...taps.current, performance.now()].slice(-9);
    const tempo = tappedTempo(taps.current);
    if (tempo) edit({ do: "setTempo", tempo }, { quiet: taps.current.length > 2 });
  };
  const addSection = (copyOf?: string) => {
    const name = copyOf ? `${song.sections.find((s) => s.id === copyOf)!.name} again` : `Section ${song.sections.length + 1}`;
    if (edit({ do: "addSection", name, bars: 4, ...(copyOf ? { copyOf } : {}) }))
      set({ section: useSong.getState().song!.sections.at(-1)!.id });
  };
  const choose = (value: string) => {
    if (value === "+new") addSection();
    else if (value === "+copy") addSection(section);
    else if (value === "+delete") edit({ do: "removeSection", section });
    else set({ section: value });
  };
  const bars = song.sections.find((s) => s.id === section);
  return (
    <header className="song-head">
      <h1 className="visually-hidden">{song.title}</h1>
      <Link to="/" className="home" title="All songs" aria-label="All songs">
        <i className="bi-chevron-left" />
      </Link>
      <InPlace label="Title" className="title" value={song.title} commit={(title) => edit({ do: "setTitle", title })} />
      <InPlace
        label="Key, for example Eb major"
        className="strong"
        value={song.key}
        list="keys"
        commit={(key) => edit({ do: "setKey", key })}
      />
      <datalist id="keys">
        {KEYS.map((k) => (
          <option key={k} value={k} />
        ))}
      </datalist>
      <span className="head-group">
        <InPlace
          label="Tempo in quarter notes a minute, 20 to 400"
          className="strong"
          value={String(song.tempo)}
          width={38}
          commit={(t) => edit({ do: "setTempo", tempo: Number(t) })}
          suffix="bpm"
        />
        <button type="button" className="quiet" onClick={tap} title="Tap the tempo, twice or more">
          tap
        </button>
        <InPlace
          label="Meter, for example 6/8 or 7/8 2+2+3"
          className="strong"
          value={song.meter}
          commit={(meter) => edit({ do: "setMeter", meter })}
        />
        <span className="muted">swing</span>
        <InPlace
          label="Swing, 50 to 75 percent"
          className="strong"
          width={26}
          value={String(Math.round(song.swing.ratio * 1000) / 10)}
          commit={(t) => edit({ do: "setSwing", ratio: Number(t.replace("%", "")) / 100, unit: song.swing.unit })}
          suffix="%"
        />
        <select
          aria-label="Swing of"
          value={song.swing.unit}
          onChange={(e) => edit({ do: "setSwing", ratio: song.swing.ratio, unit: Number(e.target.value) as 8 | 16 })}
        >
          <option value={8}>8ths</option>
          <option value={16}>16ths</option>
        </select>
      </span>
      <span className="head-group sections">
        <select aria-label="Section" value={section} onChange={(e) => choose(e.target.value)}>
          {song.sections.map((s) => (
            <option key={s.id} value={s.id}>
              {s.name}
            </option>
          ))}
          <hr />
          <option value="+new">New section</option>
          <option value="+copy">Copy this section</option>
          <option value="+delete" disabled={song.sections.length === 1}>
            Delete this section
          </option>
        </select>
        {bars && (
          <InPlace
            label="Bars of this section"
            width={26}
            value={String(bars.bars)}
            commit={(t) => edit({ do: "setSection", section, bars: Number(t) })}
            suffix="bars"
          />
        )}
      </span>
      <span className="head-group end">
        <button type="button" onClick={undo} disabled={!past.length} title="Undo (Ctrl+Z)">
          <i className="bi-arrow-counterclockwise" /> Undo
        </button>
        <button type="button" onClick={redo} disabled={!future.length} title="Redo (Ctrl+Shift+Z)">
          <i className="bi-arrow-clockwise" /> Redo
        </button>
        <span className={`status ${status}`} role="status">
          {STATUS[status]}
        </span>
        <span className="zoom">
          <button type="button" aria-label="Zoom out" title="Zoom out (-)" onClick={() => set({ zoom: Math.max(14, zoom / 1.25) })}>
            −
          </button>{" "}
          zoom{" "}
          <button type="button" aria-label="Zoom in" title="Zoom in (+)" onClick={() => set({ zoom: Math.min(200, zoom * 1.25) })}>
            +
          </button>
        </span>
      </span>
    </header>
  );
}
