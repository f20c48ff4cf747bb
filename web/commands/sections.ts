import type { Section } from "../../core/src/index";
import { tell } from "../store/notice";
import { showSection } from "../store/selection";
import { edit, songNow, useSong } from "../store/song";

/** Bars of a section from nothing. */
const NEW_BARS = 4;

/** Adds a section, from nothing or as a copy, and shows it. */
export function addSection(copy?: Section): void {
  const name = copy ? `${copy.name} again` : `Section ${songNow().sections.length + 1}`;
  const made = useSong.getState().make({ do: "addSection", name, bars: NEW_BARS, ...(copy ? { copyOf: copy.id } : {}) });
  if (made?.[0]) showSection(made[0]);
}

/** Deletes a section; where that was done it can be taken back. */
export function removeSection(section: Section): void {
  if (!edit({ do: "removeSection", section: section.id })) return;
  tell({
    text: `${section.name} was deleted.`,
    act: {
      label: "Undo",
      run: () => {
        useSong.getState().undo();
        showSection(section.id);
      },
    },
  });
}
