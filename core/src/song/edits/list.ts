import type { z } from "zod";
import * as bars from "./bars";
import * as chordRows from "./chordRows";
import * as chords from "./chords";
import type { EditDefinition } from "./define";
import * as divide from "./divide";
import * as drums from "./drums";
import * as form from "./form";
import * as log from "./log";
import * as moveParts from "./moveParts";
import * as moving from "./moving";
import * as notes from "./notes";
import * as parts from "./parts";
import * as records from "./records";
import * as sections from "./sections";
import * as singers from "./singers";
import * as song from "./song";
import * as takes from "./takes";
import * as voicings from "./voicings";

/** Every edit there is; a new one is a definition in its subject's file and one line here. */
export const EDITS = [
  song.setTitle,
  song.setKey,
  song.setTempo,
  song.setMeter,
  song.setSwing,
  song.setProfile,
  song.setSeverity,
  moving.respell,
  moving.transpose,
  moveParts.transposePart,
  moveParts.shiftInScale,
  moveParts.changeMode,
  sections.setSection,
  sections.addSection,
  sections.removeSection,
  sections.setSectionTime,
  bars.insertBars,
  bars.removeBars,
  bars.clearBars,
  bars.pasteBars,
  divide.splitSection,
  divide.joinSections,
  form.addPass,
  form.movePass,
  form.setPass,
  form.giveBack,
  form.removePass,
  form.transposeSection,
  chords.setLine,
  chords.setChord,
  chords.setChords,
  chordRows.pinChords,
  chords.setReadings,
  chordRows.arrangeChords,
  chordRows.moveChords,
  chordRows.copyChords,
  chordRows.setBorder,
  voicings.setVoicings,
  voicings.setPassVoicings,
  voicings.pinVoicing,
  voicings.pinEnds,
  voicings.setStrokes,
  notes.addNote,
  notes.changeNotes,
  notes.removeNotes,
  notes.setNotes,
  drums.setHit,
  drums.changeHit,
  drums.setLane,
  drums.setDrums,
  drums.repeatDrums,
  drums.setAccents,
  parts.addPart,
  parts.movePart,
  parts.setPart,
  parts.setPlaying,
  parts.setLink,
  parts.setEcho,
  parts.removePart,
  parts.setInstrument,
  parts.removeInstrument,
  singers.addSinger,
  singers.setSinger,
  singers.removeSinger,
  takes.keepTake,
  takes.setTake,
  takes.removeTake,
  takes.bringTake,
  log.logEntry,
  log.setEntry,
  log.removeEntry,
  records.waive,
  records.unwaive,
] as const;

type EditOf<D> = D extends EditDefinition<infer N, infer S> ? { do: N } & z.input<z.ZodObject<S>> : never;

/**
 * Every change to a song is one of these edits: plain data with a name, applied by a pure function song → song. Fixes,
 * undo, autosave and the workers all carry edits. `all` makes several as one; `inPass` makes an edit in a section as
 * one pass plays it: in bars that the pass has for itself it changes those, elsewhere the section, or with `here` the
 * pass alone.
 */
export type Edit =
  | EditOf<(typeof EDITS)[number]>
  | { do: "all"; label: string; edits: Edit[] }
  | { do: "inPass"; pass: string; here?: boolean; edit: Edit };
