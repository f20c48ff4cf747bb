import { tell, useNotice } from "../store/notice";
import { useSong } from "../store/song";

/**
 * Tells what was just done, with a button that takes it back; the note goes with the next change, which is another
 * step.
 */
export function tellUndoable(text: string, then?: () => void): void {
  const undo = () => {
    useSong.getState().undo();
    then?.();
  };
  const notice = { text, act: { label: "Undo", run: undo } };
  tell(notice);
  const off = useSong.subscribe((now, before) => {
    // What follows an edit joins its step.
    if (now.past === before.past || now.past.length === before.past.length) return;
    off();
    if (useNotice.getState().notice === notice) tell(null);
  });
}
