import { type Edit, Form, Song } from "../../../core/src/index";
import { useSelection } from "./selection";

/** What of the form is looked at. */
export interface Looked {
  section: string;
  pass: string | null;
  here: boolean;
}

/**
 * The pass in view: the chosen one, else the first of the section that is looked at; null where the form does not play
 * it.
 */
export function passInView(song: Song, pass: string | null, section: string): string | null {
  const chosen = song.form.find((p) => p.id === pass);
  if (chosen?.sectionId === section) return chosen.id;
  return song.form.find((p) => p.sectionId === section)?.id ?? null;
}

/** The song as the pass in view plays it. */
export const viewOf = (song: Song, { pass, section, here }: Looked = useSelection.getState()): Song =>
  Form.view(song, passInView(song, pass, section), here);

/** Whether an edit says something of a section, or of how a part plays anywhere. */
const concerns = (edit: Edit, section: string): boolean => {
  if (edit.do === "all") return edit.edits.some((e) => concerns(e, section));
  if (edit.do === "setPlaying") return edit.pass === undefined && (edit.section ?? section) === section;
  return "section" in edit && edit.section === section;
};

/** An edit of the section in view as one of the pass in view, where that plays something else or is meant alone. */
export function asMeant(song: Song, edit: Edit, looked: Looked = useSelection.getState()): Edit {
  const id = passInView(song, looked.pass, looked.section);
  const pass = id === null ? undefined : Song.pass(song, id);
  if (!pass || edit.do === "inPass" || !(looked.here || Form.isUnlike(pass)) || !concerns(edit, pass.sectionId))
    return edit;
  return { do: "inPass", pass: pass.id, ...(looked.here ? { here: true } : {}), edit };
}
