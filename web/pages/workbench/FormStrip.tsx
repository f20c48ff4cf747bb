import FormControl from "react-bootstrap/FormControl";
import { closestCenter, DndContext, type DragEndEvent } from "@dnd-kit/core";
import { horizontalListSortingStrategy, SortableContext, useSortable } from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { memo, useCallback, useRef, useState, type KeyboardEvent, type ReactNode, type RefObject } from "react";
import Dropdown from "react-bootstrap/Dropdown";
import { Form, type FormPass, nth, Song, Text, type Ticks } from "../../../core/src/index";
import { playedPlace } from "../../app/audio/sound";
import { useHead } from "../../app/audio/useHead";
import { addPass, followSong, loopPasses, movePass, playFrom, removePass } from "../../app/commands/form";
import { addSection } from "../../app/commands/sections";
import { formNow } from "../../app/store/form";
import { usePlayback } from "../../app/store/playback";
import { passInView } from "../../app/store/passes";
import { showPass, useSelection, writeHere } from "../../app/store/selection";
import { edit, storedSong, useOfSong } from "../../app/store/song";
import { keyText } from "../../kit/texts";
import { useListDrag } from "../../kit/useListDrag";
import { Toggle } from "../../kit/Toggle";
import { useNames } from "./names";
import { PassDetails } from "./PassDetails";
import { Button } from "../../kit/Button";

/** A line goes through the strip while the whole song plays, and what is played comes into view. */
const useStripPlayhead = (strip: RefObject<HTMLOListElement | null>, passes: readonly FormPass[]) =>
  useHead(
    useCallback(() => {
      const at = playedPlace();
      const pass = at?.pass ? passes.find((p) => p.id === at.pass) : undefined;
      const box = pass && strip.current?.querySelector<HTMLElement>(`[data-pass="${pass.id}"]`);
      if (!at?.pass || !pass || !box) return null;
      followSong();
      const to = (tick: Ticks) => {
        const share = Math.max(0, tick - pass.start) / pass.duration;
        return `translateX(${box.offsetLeft + box.offsetWidth * share}px)`;
      };
      return { through: [to(at.inSong), to(at.inSong + at.until - at.tick)], seconds: at.seconds };
    }, [strip, passes]),
  );

/**
 * The passes of the song in order: looked at by a click, moved by dragging or Alt and arrows, played from there by a
 * double click.
 */
export const FormStrip = memo(function FormStrip() {
  const section = useSelection((s) => s.section);
  const chosen = useSelection((s) => s.pass);
  const looped = usePlayback((s) => (s.wholeSong ? s.passes : null));
  const here = useSelection((s) => s.here);
  const [open, setOpen] = useState(false);
  const passes = useOfSong(formNow);
  const strip = useRef<HTMLOListElement>(null);
  const { head } = useStripPlayhead(strip, passes);
  const current = useOfSong((song) => passInView(song, chosen, section));
  const shown = passes.find((p) => p.id === current);
  const sensors = useListDrag();
  const drop = ({ active, over }: DragEndEvent) => {
    const to = passes.findIndex((p) => p.id === over?.id);
    if (to >= 0 && over?.id !== active.id) edit({ do: "movePass", pass: String(active.id), to });
  };
  const indexOf = (id: string | null | undefined) => passes.findIndex((p) => p.id === id);
  /** From the pass in view to this one, again and again. */
  const loopTo = (i: number) => {
    const [from, to] = [i, Math.max(0, indexOf(current))].sort((a, b) => a - b) as [number, number];
    loopPasses(nth(passes, from).id, nth(passes, to).id);
  };
  const [first, last] = looped ? [indexOf(looped.from), indexOf(looped.to)] : [-1, -1];
  return (
    <nav className="form-strip" aria-label="Form">
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={drop}>
        <SortableContext items={passes.map((p) => p.id)} strategy={horizontalListSortingStrategy}>
          <ol ref={strip}>
            {passes.map((pass, i) => (
              <StripPass
                key={pass.id}
                pass={pass}
                looped={first >= 0 && i >= first && i <= last}
                here={here && pass.id === current}
              >
                <PassButton pass={pass} current={pass.id === current} loopTo={() => loopTo(i)} />
              </StripPass>
            ))}
            <div className="form-playhead" ref={head} aria-hidden="true" />
          </ol>
        </SortableContext>
      </DndContext>
      <FormEnd passes={passes} current={current} open={open} setOpen={setOpen} />
      {open && shown && <PassDetails key={shown.id} pass={shown} />}
    </nav>
  );
});

/** A place of the strip: it can be dragged to another one, and the others make room. */
function StripPass({
  pass,
  looped,
  here,
  children,
}: {
  pass: FormPass;
  looped: boolean;
  here: boolean;
  children: ReactNode;
}) {
  const { setNodeRef, listeners, transform, transition, isDragging } = useSortable({ id: pass.id });
  const classes = ["form-pass", isDragging && "dragged", looped && "looped", here && "here"];
  return (
    <li
      ref={setNodeRef}
      data-pass={pass.id}
      className={classes.filter(Boolean).join(" ")}
      style={{ flexGrow: pass.seconds, transform: CSS.Translate.toString(transform), transition }}
      {...listeners}
    >
      {children}
    </li>
  );
}

/** What is different in a pass, in words. */
const differs = (pass: FormPass): string => [...pass.unlike.map((u) => keyText(u)), ...pass.own].join("; ");

function PassButton({ pass, current, loopTo }: { pass: FormPass; current: boolean; loopTo(): void }) {
  const [naming, setNaming] = useState(false);
  const onKeyDown = (e: KeyboardEvent) => {
    if (e.key === "F2") setNaming(true);
    else if (e.altKey && (e.key === "ArrowLeft" || e.key === "ArrowRight"))
      movePass(pass.id, e.key === "ArrowLeft" ? -1 : 1);
    else if (e.key === "Delete") removePass(pass);
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  if (naming)
    return (
      <FormControl
        bsPrefix="field"
        className="form-name"
        aria-label="Name of this pass"
        defaultValue={pass.name}
        autoFocus
        onFocus={(e) => e.target.select()}
        onBlur={(e) => {
          setNaming(false);
          const name = e.target.value.trim();
          if (name && name !== pass.name) edit({ do: "setPass", pass: pass.id, name });
        }}
        onKeyDown={(e) => {
          e.stopPropagation();
          if (e.key === "Enter") e.currentTarget.blur();
          if (e.key === "Escape") setNaming(false);
        }}
      />
    );
  const key = pass.unlike.find((u) => u === pass.key);
  const words = differs(pass);
  return (
    <Button
      aria-pressed={current}
      aria-label={
        `${pass.name}, ${Text.counted(pass.bars, "bar")}, from ` +
        `${Form.time(pass.startSeconds)}${words ? `; ${words}` : ""}`
      }
      title={
        `${words ? `${words}. ` : ""}Click: look at it. Double click: play from here. Shift click: loop up to ` +
        "here. Drag, or Alt ← →: move it. F2: name it"
      }
      onClick={(e) => (e.shiftKey ? loopTo() : showPass(pass.section, pass.id))}
      onDoubleClick={() => playFrom(pass)}
      onKeyDown={onKeyDown}
    >
      <b>
        {pass.name}
        {pass.own.length > 0 && <sup aria-hidden="true">*</sup>}
      </b>
      <span className="muted tabular bars">{pass.bars}</span>
      {key && (
        <>
          <span className="muted key">{keyText(key)}</span>
          <span className="muted short-key">
            {keyText(key)
              .replace(/ major$/, "")
              .replace(/ minor$/, "m")}
          </span>
        </>
      )}
      <span className="muted tabular time">{Form.time(Math.round(pass.startSeconds))}</span>
    </Button>
  );
}

/** How long the song is, a section played once more, and the details of the pass in view. */
function FormEnd({
  passes,
  current,
  open,
  setOpen,
}: {
  passes: readonly FormPass[];
  current: string | null;
  open: boolean;
  setOpen(open: boolean): void;
}) {
  const here = useSelection((s) => s.here);
  const names = useNames();
  const shown = passes.find((p) => p.id === current);
  const seconds = passes.reduce((sum, p) => sum + p.seconds, 0);
  const bars = passes.reduce((sum, p) => sum + p.bars, 0);
  return (
    <span className="head-group">
      <span className="form-total tabular muted">
        {Text.counted(bars, "bar")}, {Form.time(seconds)}
      </span>
      <Dropdown align="end">
        <Dropdown.Toggle
          as="button"
          type="button"
          className="quiet"
          aria-label="Add to the form"
          title="Play a section once more, or add a new one"
        >
          +
        </Dropdown.Toggle>
        <Dropdown.Menu>
          <Dropdown.Header>Play once more, behind this pass</Dropdown.Header>
          {names.map(([id, name]) => (
            <Dropdown.Item key={id} as="button" type="button" onClick={() => addPass(id, current)}>
              {name}
            </Dropdown.Item>
          ))}
          <Dropdown.Divider />
          <Dropdown.Item as="button" type="button" onClick={() => addSection(undefined, current)}>
            New section
          </Dropdown.Item>
          {shown && (
            <Dropdown.Item
              as="button"
              type="button"
              onClick={() => addSection(Song.section(storedSong(), shown.section), current)}
            >
              New section like {names.find(([id]) => id === shown.section)?.[1]}
            </Dropdown.Item>
          )}
        </Dropdown.Menu>
      </Dropdown>
      {shown && (
        <Toggle
          on={here}
          title={
            here
              ? "What you write is for this pass alone. Press again to write for all its passes"
              : `Write for this pass alone: chords, notes and drums of ${shown.name} change here, its other ` +
                "passes keep theirs"
          }
          press={() => writeHere(shown.section, shown.id, !here)}
        >
          here only
        </Toggle>
      )}
      <Toggle on={open} title="Name, bars, key and parts of the pass in view" press={() => setOpen(!open)}>
        pass
      </Toggle>
    </span>
  );
}
