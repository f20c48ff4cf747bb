import { useEffect, useRef, useState } from "react";
import {
  instrumentOf,
  parseTuning as parseTuningText,
  TERM_NAMES,
  TERMS,
  TOP_SHAPES,
  typeset,
  weightSetting,
  type CapoChoice,
  type Edit,
  type Part,
  type PitchName,
  type TermName,
} from "../../../core/src/index";
import type { ScoreData } from "../../score/data";
import { useSong } from "../../store/song";
import { useView, type Offer } from "../../store/view";
import { workers } from "../../workers/client";
import { OfferButtons } from "../chords/offers";
import { InPlace } from "../../ui/InPlace";
import { moveRegister, soundWhenVoiced, styleOf, stylesFor } from "./act";

const shown = (n: number): string => (Math.round(n * 10) / 10).toFixed(1);

/** Voicings kept aside by the user, to be compared with what the path chooses. */
let kept: { part: string; section: string; pitches: Record<string, PitchName[]> } | null = null;

const pinAll = (section: string, part: string, pitches: Record<string, PitchName[]>): Edit => ({
  do: "all",
  label: "voicings",
  edits: Object.entries(pitches).map(([chord, p]) => ({ do: "pinVoicing", section, part, chord, pitches: p })),
});

export function PathTab({ data, part }: { data: ScoreData; part: Part }) {
  const voicing = useView((s) => s.voicing[part.id]);
  const edit = useSong((s) => s.edit);
  const { song, section } = data;
  const styles = stylesFor(song, part);
  const style = styleOf(song, part);
  const instrument = instrumentOf(part.instrument, song);
  const block = part.link?.kind === "block";
  const events = section.chords.filter((c) => c.symbol !== "N.C.");
  const pinned = events.filter((e) => e.voicings?.[part.id]?.pinned);
  const set = (settings: Record<string, string | number | boolean | null>) => {
    soundWhenVoiced(part.id);
    edit({ do: "setPart", part: part.id, settings });
  };
  const register = Number(part.settings.register ?? 0);
  if (block)
    return (
      <>
        <p className="small">{"Every note of the tune has a chord of its own beneath it. It follows the tune and the chords until you detach it under Parts."}</p>
        <label className="controls">
          tune
          <TopPart data={data} part={part} />
        </label>
        <label className="controls">
          <input type="checkbox" checked={part.settings.voices === 5} onChange={(e) => set({ voices: e.target.checked ? 5 : 4 })} /> double the
          tune an octave lower
        </label>
      </>
    );
  return (
    <>
      {voicing && voicing.ids.length > 0 ? (
        <p className="small">
          The cheapest path through {Math.min(...voicing.candidates)}–{Math.max(...voicing.candidates)}{" "}
          {instrument.held.by === "frets" ? "shapes" : "layouts"} of each chord, found exactly. It moves <b>{voicing.motion}</b> semitones in
          all.
        </p>
      ) : (
        <p className="small">Type a chord line in Chords; it is voiced at once.</p>
      )}
      <div className="controls">
        <select aria-label="Style" title="V, Shift V" value={style.id} onChange={(e) => set({ style: e.target.value })}>
          {styles.map((s) => (
            <option key={s.id} value={s.id}>
              {s.title}
            </option>
          ))}
        </select>
        <span className="stepper" role="group" aria-label="Register">
          <button type="button" title="Lower (Shift R)" onClick={() => moveRegister(-1)}>
            lower
          </button>
          <span className="tabular">{register > 0 ? `+${register}` : register}</span>
          <button type="button" title="Higher (R)" onClick={() => moveRegister(1)}>
            higher
          </button>
        </span>
      </div>
      <p className="small">{style.explanation}</p>
      {voicing && voicing.instead.length > 0 && (
        <p className="small" role="status">
          The style does not suit{" "}
          {[...new Set(events.filter((e) => voicing.instead.includes(e.id)).map((e) => typeset(e.symbol)))].join(", ")}:{" "}
          {voicing.instead.length === 1 ? "it is" : "they are"} laid out freely instead.
        </p>
      )}
      <div className="controls">
        <label>
          <input
            type="checkbox"
            checked={part.link?.loop ?? false}
            onChange={(e) => edit({ do: "setPart", part: part.id, loop: e.target.checked })}
          />{" "}
          joins its own beginning
        </label>
        {!style.fixed && instrument.polyphony > 1 && (
          <label>
            {instrument.held.by === "frets" ? "strings, at least" : "voices"}{" "}
            <select value={Number(part.settings.voices ?? 4)} onChange={(e) => set({ voices: Number(e.target.value) })}>
              {[2, 3, 4, 5, 6]
                .filter((n) => n <= instrument.polyphony)
                .map((n) => (
                  <option key={n}>{n}</option>
                ))}
            </select>
          </label>
        )}
        {instrument.held.by === "hands" && (
          <>
            <label>
              hands{" "}
              <select value={part.settings.hands === 1 ? 1 : 2} onChange={(e) => set({ hands: Number(e.target.value) })}>
                <option>1</option>
                <option>2</option>
              </select>
            </label>
            <label>
              one reaches{" "}
              <select value={Number(part.settings.span ?? instrument.held.span)} onChange={(e) => set({ span: Number(e.target.value) })}>
                <option value={12}>an octave</option>
                <option value={14}>a ninth</option>
                <option value={16}>a tenth</option>
                <option value={17}>an eleventh</option>
              </select>
            </label>
          </>
        )}
      </div>
      {instrument.held.by === "frets" && <Neck data={data} part={part} set={set} />}
      <h3>Top line</h3>
      <div className="controls">
        <label>
          goes{" "}
          <select aria-label="Shape of the top line" value={String(part.settings.topShape ?? "smooth")} onChange={(e) => set({ topShape: e.target.value })}>
            {Object.entries(TOP_SHAPES).map(([id, words]) => (
              <option key={id} value={id}>
                {words}
              </option>
            ))}
          </select>
        </label>
        <label>
          follows <TopPart data={data} part={part} />
        </label>
      </div>
      <Tops data={data} part={part} />
      <Others data={data} part={part} />
      {pinned.length > 0 && (
        <p className="controls">
          <span className="small">
            {pinned.length} of {events.length} chords pinned
          </span>
          <button
            type="button"
            onClick={() =>
              edit({
                do: "all",
                label: "unpin",
                edits: pinned.map((e) => ({ do: "pinVoicing", section: section.id, part: part.id, chord: e.id, pitches: null })),
              })
            }
          >
            Let all go
          </button>
        </p>
      )}
      <h3>What counts</h3>
      <Weights part={part} />
    </>
  );
}

/** The part whose notes the top follows. */
function TopPart({ data, part }: { data: ScoreData; part: Part }) {
  const edit = useSong((s) => s.edit);
  const tunes = data.song.parts.filter((p) => p.id !== part.id && !p.link && p.role !== "drums" && p.role !== "bass");
  return (
    <select
      aria-label="The top follows"
      value={part.link?.top ?? ""}
      onChange={(e) => {
        const { top: _, ...link } = part.link!;
        soundWhenVoiced(part.id);
        edit({ do: "setLink", part: part.id, link: e.target.value ? { ...link, top: e.target.value } : link });
      }}
    >
      <option value="">nothing</option>
      {tunes.map((p) => (
        <option key={p.id} value={p.id}>
          {p.name}
        </option>
      ))}
    </select>
  );
}

/** Which wanted top notes were met, and why some were not. */
function Tops({ data, part }: { data: ScoreData; part: Part }) {
  const voicing = useView((s) => s.voicing[part.id]);
  const set = useView((s) => s.set);
  const tops = Object.entries(voicing?.tops ?? {});
  const missed = Object.entries(voicing?.bottoms ?? {});
  if (!tops.length && !missed.length) return null;
  const nameOf = (id: string) => typeset(data.section.chords.find((c) => c.id === id)?.symbol ?? "");
  const met = tops.filter(([, t]) => t.met !== "no").length;
  const over = tops.filter(([, t]) => t.met === "over");
  const no = tops.filter(([, t]) => t.met === "no");
  return (
    <div role="status" className="small">
      {tops.length > 0 && (
        <p className="flush">
          {met} of {tops.length} wanted top notes are met
          {over.length > 0 && `, ${over.length} of them laid over the chord: ${over.map(([id, t]) => `${typeset(t.wanted)} over ${nameOf(id)}`).join(", ")}`}
          .
        </p>
      )}
      {[...no.map(([id, t]) => [id, `${typeset(t.wanted)} over ${nameOf(id)}: ${t.why}`] as const), ...missed.map(([id, p]) => [id, `${typeset(p)} under ${nameOf(id)} cannot be had`] as const)].map(
        ([id, words]) => (
          <p key={id} className="flush problem">
            {words}{" "}
            <button type="button" onClick={() => set({ chord: id, chords: [id], voiceTab: "chord" })}>
              show
            </button>
          </p>
        ),
      )}
    </div>
  );
}

/** The cheapest other ways through the section, and what was kept aside, to hear, compare and take. */
function Others({ data, part }: { data: ScoreData; part: Part }) {
  const { voicingPaths, offers, set, loop } = useView();
  const version = useSong((s) => s.version);
  const [busy, setBusy] = useState(false);
  const [asked, setAsked] = useState(0);
  const { section } = data;
  const bar = data.meter.bar;
  const passage = loop?.on ? { from: loop.from, to: loop.to } : { from: 0, to: data.length };
  const inside = (pitches: Record<string, PitchName[]>) =>
    Object.fromEntries(
      section.chords.flatMap((c) => (pitches[c.id] && c.start < passage.to && c.start + c.duration > passage.from ? [[c.id, pitches[c.id]!]] : [])),
    );
  const offer = (id: string, label: string, pitches: Record<string, PitchName[]>): Offer => ({
    id,
    label,
    edit: pinAll(section.id, part.id, inside(pitches)),
    ...passage,
    whole: true,
  });
  const show = (paths = voicingPaths) => {
    const list = paths.slice(1).map((p, i) => offer(`path:${part.id}:${section.id}:${version}:${i}`, `way ${i + 1}`, p.pitches));
    if (kept?.part === part.id && kept.section === section.id) list.push(offer(`kept:${part.id}:${section.id}`, "kept aside", kept.pitches));
    set({ voicingPaths: paths, offers: list });
  };
  const ask = async () => {
    setBusy(true);
    const found = await workers.writer.paths(section.id, part.id);
    setBusy(false);
    if (!found.ok) useSong.getState().say(found.error);
    else {
      setAsked(useSong.getState().version);
      show(found.value);
    }
  };
  // What was offered belongs to the chords as they were.
  const first = useRef(true);
  useEffect(() => {
    if (first.current) first.current = false;
    set({ voicingPaths: [], offers: [] });
    return () => set({ voicingPaths: [], offers: [] });
  }, [part.id, section.id, set]);
  const keep = () => {
    kept = {
      part: part.id,
      section: section.id,
      pitches: Object.fromEntries(section.chords.flatMap((c) => (c.voicings?.[part.id] ? [[c.id, c.voicings[part.id]!.pitches]] : []))),
    };
    show();
  };
  return (
    <>
      <div className="row-head">
        <h3 className="flush">Other ways</h3>
        <span className="controls flush">
          <button type="button" disabled={busy} onClick={() => void ask()}>
            {busy ? "Looking …" : asked && asked !== version ? "Look again" : "Find five"}
          </button>
          <button type="button" title="Remember these voicings and compare them later" onClick={keep}>
            Keep aside
          </button>
        </span>
      </div>
      {offers.length > 0 ? (
        <ol className="offer-list" aria-label="Other ways">
          {offers.map((o, i) => {
            const path = o.id.startsWith("path:") ? voicingPaths[i + 1] : undefined;
            return (
              <li key={o.id}>
                <span className="offer-head">
                  <b>{i + 1}</b>
                  <span className="offer-chords">{path ? `moves ${path.motion}` : "kept aside"}</span>
                  <OfferButtons offer={o} bar={bar} end={data.length} />
                </span>
                <span className="small offer-why">
                  {path ? path.trades.join(", ") || "nearly the same price" : "what you kept, to be compared with what is written"}
                  {path && !path.exact && <span title="Found by making what came before dearer; a cheaper one may exist"> · not proven the cheapest</span>}
                </span>
              </li>
            );
          })}
        </ol>
      ) : (
        <p className="small">Each differs in the top or lowest note of a quarter of the chords. Hear with 1–6, compare with A, take with T.</p>
      )}
    </>
  );
}

/** Weights of the terms, and what each costs over the whole path. */
function Weights({ part }: { part: Part }) {
  const edit = useSong((s) => s.edit);
  const voicing = useView((s) => s.voicing[part.id]);
  const dragging = useRef("");
  const weight = (t: TermName) => Number(part.settings[weightSetting(t)] ?? 1);
  const changed = TERM_NAMES.filter((t) => part.settings[weightSetting(t)] !== undefined);
  return (
    <>
      <table className="measures weights">
        <tbody>
          {TERM_NAMES.map((t) => (
            <tr key={t} className={weight(t) === 0 ? "zero" : ""}>
              <th scope="row">{TERMS[t]}</th>
              <td>
                <input
                  type="range"
                  min={0}
                  max={3}
                  step={0.25}
                  value={weight(t)}
                  aria-label={`Weight of ${TERMS[t]}`}
                  title={`× ${weight(t)}`}
                  onPointerUp={() => (dragging.current = "")}
                  onChange={(e) => {
                    // One drag is one step of undo.
                    edit({ do: "setPart", part: part.id, settings: { [weightSetting(t)]: Number(e.target.value) } }, { quiet: dragging.current === t });
                    dragging.current = t;
                  }}
                />
              </td>
              <td className="tabular">{shown(voicing?.terms[t] ?? 0)}</td>
            </tr>
          ))}
        </tbody>
        <tfoot>
          <tr>
            <th scope="row">cost of the path</th>
            <td />
            <td>{shown(voicing?.cost ?? 0)}</td>
          </tr>
        </tfoot>
      </table>
      {changed.length > 0 && (
        <button
          type="button"
          onClick={() => edit({ do: "setPart", part: part.id, settings: Object.fromEntries(changed.map((t) => [weightSetting(t), null])) })}
        >
          Back to the usual weights
        </button>
      )}
    </>
  );
}

/** Tuning and capo of a fretted part. */
function Neck({ data, part, set }: { data: ScoreData; part: Part; set(settings: Record<string, string | number | null>): void }) {
  const [choices, setChoices] = useState<CapoChoice[] | null>(null);
  const [busy, setBusy] = useState(false);
  const held = instrumentOf(part.instrument, data.song).held;
  if (held.by !== "frets") return null;
  const find = async () => {
    setBusy(true);
    const found = await workers.writer.capo(part.id);
    setBusy(false);
    if (found.ok) setChoices(found.value);
    else useSong.getState().say(found.error);
  };
  return (
    <>
      <div className="controls">
        <label>
          capo{" "}
          <select aria-label="Capo" value={Number(part.settings.capo ?? 0)} onChange={(e) => set({ capo: Number(e.target.value) })}>
            {Array.from({ length: 13 }, (_, i) => (
              <option key={i} value={i}>
                {i === 0 ? "none" : `fret ${i}`}
              </option>
            ))}
          </select>
        </label>
        <button type="button" disabled={busy} onClick={() => void find()}>
          {busy ? "Trying capos …" : "Easiest for the song"}
        </button>
        <span className="inline-field">
          strings{" "}
          <InPlace
            label="Tuning, lowest drawn string first"
            value={String(part.settings.tuning ?? held.strings.join(" "))}
            commit={(text) => {
              const parsed = text.trim() ? parseTuningText(text, held.strings) : null;
              if (parsed && !parsed.ok) {
                useSong.getState().say(parsed.error);
                return false;
              }
              set({ tuning: parsed ? parsed.value.join(" ") : null });
              return true;
            }}
          />
        </span>
      </div>
      {choices && (
        <ol className="choices" aria-label="Capos">
          {choices.slice(0, 4).map((c) => (
            <li key={c.capo} className={c.capo === Number(part.settings.capo ?? 0) ? "current" : ""}>
              <span className="line-title">
                {c.capo ? `Capo ${c.capo}` : "No capo"}: think in {typeset(c.keyOfShapes)}
                <span className="small">
                  strain {shown(c.strain)}, {c.barres} {c.barres === 1 ? "barre" : "barres"}, {c.open} open strings
                </span>
              </span>
              <button type="button" onClick={() => set({ capo: c.capo })}>
                Take
              </button>
            </li>
          ))}
        </ol>
      )}
    </>
  );
}
