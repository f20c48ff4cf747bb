import FormControl from "react-bootstrap/FormControl";
import { memo, useCallback, useEffect, useMemo } from "react";
import {
  type ChordAnalysis,
  type ChordEvent,
  type HarmonyReport,
  Instrument,
  type Part,
  Pitch,
  sure,
} from "../../core/src/index";
import { chordsNow } from "../app/commands/chords";
import { useVoicePart } from "../app/commands/voicings";
import { usePlayback } from "../app/store/playback";
import { useResults } from "../app/store/results";
import type { RowData } from "./rowData";
import { useSelection } from "../app/store/selection";
import { inSight, type Axis, type Window } from "./axis";
import { ChordBorder, ChordCell } from "./ChordCell";
import { sectionNow, useSong } from "../app/store/song";
import { NEW, useChordTyping, type ChordTyping } from "./chordEditing";
import { LABEL_WIDTH } from "./layout";
import { Ruler } from "./Ruler";
import { Button } from "../kit/Button";

interface Props {
  data: RowData;
  axis: Axis;
  window: Window;
}

/** Room for a new chord, and how far a chord is kept from the edges when it is brought into view. */
const NEW_WIDTH = 124;
const EDGE = 40;

const scroller = (): HTMLElement | null => document.querySelector<HTMLElement>(".score");

/** Scrolls a chord into view: what is out of sight is not drawn and cannot take the focus. */
function reveal(axis: Axis, event: ChordEvent | undefined): void {
  const view = scroller();
  if (!view || !event) return;
  const [left, right] = [axis.x(event.start), axis.x(event.start + event.duration)];
  const width = view.clientWidth - LABEL_WIDTH;
  if (left < view.scrollLeft) view.scrollLeft = Math.max(0, left - EDGE);
  else if (right > view.scrollLeft + width) view.scrollLeft = right - width + EDGE;
}

const isLayoutPinned = (event: ChordEvent, part: Part | undefined): boolean =>
  part !== undefined && event.voicings?.[part.id]?.pinned === true;

/** Brings chords of a section into view, and moves the focus to them. */
function useShow(section: string, axis: Axis): Record<"show" | "focus", (id: string) => void> {
  const show = useCallback(
    (id: string) =>
      reveal(
        axis,
        chordsNow(section).find((c) => c.id === id),
      ),
    [axis, section],
  );
  const focus = useCallback(
    (id: string) => {
      show(id);
      document.querySelector<HTMLElement>(`[data-chord="${id}"]`)?.focus({ preventScroll: true });
    },
    [show],
  );
  return { show, focus };
}

/** Ruler and chord symbols with what they mean in the key. */
export const ChordRow = memo(function ChordRow({ data, axis, window }: Props) {
  const section = data.section.id;
  const preview = usePlayback((s) => s.preview !== null);
  // Keys act on the chords as they are stored: the row is never behind, though the rest of the score follows later.
  const stored = useSong(() => sectionNow(section)?.chords);
  const events = preview ? data.section.chords : (stored ?? data.section.chords);
  const selected = useSelection((s) => s.chord);
  const chosen = useSelection((s) => s.chords);
  const harmony = useResults((s) => s.harmony);
  const part = useVoicePart(data.song);
  const shapes = useResults((s) =>
    part && Instrument.of(part.instrument, data.song).held.by === "frets" ? s.voicing[part.id] : undefined,
  );
  const { show, focus } = useShow(section, axis);
  const typed = useChordTyping(data, focus, show);
  const { typing } = typed;
  // The place of a new chord stays in sight, also when the section grows under it.
  const isNew = typing?.id === NEW;
  useEffect(() => {
    const view = scroller();
    if (isNew && view) view.scrollLeft = view.scrollWidth;
  }, [isNew, axis.width, events.length]);
  // What is shown while something is auditioned is not what was analyzed.
  const analyses = useMemo(
    () => new Map<string, ChordAnalysis>(preview ? [] : harmony?.chords.map((c) => [c.id, c])),
    [preview, harmony],
  );
  const current = selected ?? events[0]?.id;
  const end = events.length ? Math.max(...events.map((c) => c.start + c.duration)) : 0;
  return (
    <div className="chord-row" style={{ width: axis.width }}>
      <Ruler data={data} axis={axis} window={window} />
      <div className="chords" role="group" aria-label="Chords">
        {!preview && harmony && <Regions regions={harmony.regions} events={events} axis={axis} />}
        {events.map((event, i) => {
          // Out of sight it is not drawn, unless the focus is on it or about to be.
          const near = inSight(axis, window, event.start, event.start + event.duration);
          if (!near && event.id !== current && event.id !== typing?.id) return null;
          const width = event.duration * axis.scale;
          const isChosen = chosen.includes(event.id) || event.id === selected;
          return (
            <div
              key={event.id}
              className={`chord${isChosen ? " selected" : ""}`}
              style={{ left: axis.x(event.start), width }}
            >
              {typing?.id === event.id ? (
                <SymbolInput typed={typed} />
              ) : (
                <ChordCell
                  event={event}
                  section={section}
                  meter={data.meter}
                  width={width}
                  chosen={isChosen}
                  focusable={event.id === current}
                  analysis={analyses.get(event.id)}
                  sounding={data.sounding.get(event.id)}
                  shape={shapes?.chords[shapes.ids.indexOf(event.id)]?.shape}
                  layoutPinned={isLayoutPinned(event, part)}
                  focus={focus}
                  rename={typed.begin}
                />
              )}
              {i > 0 && <ChordBorder event={event} section={section} axis={axis} />}
            </div>
          );
        })}
        {isNew && (
          <div
            className="chord new"
            style={{ left: Math.min(axis.x(end), Math.max(0, axis.width - NEW_WIDTH)), width: NEW_WIDTH }}
          >
            <SymbolInput typed={typed} />
          </div>
        )}
        {!events.length && !typing && (
          <p className="empty-row" style={{ left: axis.x(0) }}>
            No chords yet. <Button onClick={() => typed.begin(NEW, "")}>Type the first one here</Button> (Tab goes on to
            the next bar), or use the ways in on the right.
          </p>
        )}
      </div>
    </div>
  );
});

/** The symbol that is being typed, with what is wrong with it. */
function SymbolInput({ typed }: { typed: ChordTyping }) {
  const { id, text, problem } = sure(typed.typing);
  return (
    <>
      <FormControl
        bsPrefix="field"
        autoFocus
        aria-label={id === NEW ? "New chord" : "Chord symbol"}
        aria-invalid={problem !== null}
        value={text}
        placeholder={id === NEW ? "next bar" : undefined}
        onChange={(e) => typed.change(e.target.value)}
        onBlur={typed.onBlur}
        onKeyDown={typed.onKeyDown}
      />
      {problem && (
        <p className="chord-problem" role="alert">
          {problem.message}. {problem.hint}
        </p>
      )}
    </>
  );
}

/** Stretches that are heard in another key. */
const Regions = ({
  regions,
  events,
  axis,
}: {
  regions: HarmonyReport["regions"];
  events: readonly ChordEvent[];
  axis: Axis;
}) =>
  regions.map((r) => {
    const first = events.find((c) => c.id === r.from);
    const last = events.find((c) => c.id === r.to);
    if (!first || !last) return null;
    return (
      <span
        key={r.from}
        className="key-region"
        style={{ left: axis.x(first.start), width: (last.start + last.duration - first.start) * axis.scale - 3 }}
        title={Pitch.typeset(r.text)}
      >
        in {Pitch.typeset(r.key)}
      </span>
    );
  });
