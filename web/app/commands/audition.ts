import { Edit, type Meter, type Section, type Ticks } from "../../../core/src/index";
import { audition, endPreview } from "../audio/sound";
import { say, songNow, useSong } from "../store/song";
import { keyLogged } from "./log";

/**
 * The bar of a place with the one before and the one behind it, within the section: a change is heard as it comes and
 * as it goes on.
 */
export function around(section: Section, meter: Meter, tick: Ticks): { from: Ticks; to: Ticks } {
  const bar = Math.floor(Math.max(0, tick) / meter.bar);
  return { from: Math.max(0, bar - 1) * meter.bar, to: Math.min(section.bars, bar + 2) * meter.bar };
}

/** Plays the song as it would be after an edit; asked for again, it stops. */
export function auditionEdit(edit: Edit, label: string, id: string, { from, to }: { from: Ticks; to: Ticks }): void {
  if (!useSong.getState().song) return;
  const result = Edit.apply(songNow(), edit);
  if (result.ok) void audition(result.value.song, label, id, { from, to });
  else say(result.error);
}

/** Makes an edit that may just be heard: what is tried out ends with it. */
export function acceptEdit(edit: Edit): boolean {
  endPreview();
  return useSong.getState().edit(keyLogged(edit));
}
