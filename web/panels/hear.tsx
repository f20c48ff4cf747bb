import { applyEdit, typesetNames, type Edit, type Fix, type Meter, type Section, type Song, type Ticks } from "../../core/src/index";
import { endPreview, audition, useSound } from "../audio/sound";
import { useSong } from "../store/song";
import { useView } from "../store/view";

/** Two bars around a place, within the section. */
export function around(section: Section, meter: Meter, tick: Ticks): { from: Ticks; to: Ticks } {
  const bar = Math.floor(Math.max(0, tick) / meter.bar);
  const first = tick % meter.bar === 0 && bar > 0 ? bar - 1 : bar;
  return { from: first * meter.bar, to: Math.min(section.bars, Math.max(first + 2, bar + 1)) * meter.bar };
}

/** Plays the song as it would be after an edit. */
export function auditionEdit(edit: Edit, label: string, id: string, from: Ticks, to: Ticks): void {
  const { song, say } = useSong.getState();
  const result = song && applyEdit(song, edit);
  if (!result) return;
  if (result.ok) void audition(result.value.song, label, id, from, to);
  else say(result.error);
}

/** Makes an edit that may just be heard: what is tried out ends with it. */
export function acceptEdit(edit: Edit): boolean {
  endPreview();
  return useSong.getState().edit(edit);
}

/** The song as it is stored, and one of its sections, whatever is being tried out in the score. */
export function useStored(sectionId: string): { song: Song; section: Section } {
  const song = useSong((s) => s.song)!;
  return { song, section: song.sections.find((s) => s.id === sectionId) ?? song.sections[0]! };
}

/** A fix that can be heard and taken. */
export function FixLink({ fix, id, section, meter, tick }: { fix: Fix; id: string; section: Section; meter: Meter; tick: Ticks }) {
  const heard = useView((s) => s.preview?.id === id);
  const playing = useSound((s) => s.playing);
  const range = around(section, meter, tick);
  return (
    <span className="fix">
      <span>{typesetNames(fix.label)}</span>
      <button type="button" aria-pressed={heard && playing} onClick={() => auditionEdit(fix.edit, fix.label, id, range.from, range.to)}>
        {heard && playing ? "Stop" : "Hear"}
      </button>
      <button type="button" onClick={() => acceptEdit(fix.edit)}>
        Take
      </button>
    </span>
  );
}
