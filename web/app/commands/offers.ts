import { Edit, type Ticks } from "../../../core/src/index";
import { audition, endPreview } from "../audio/sound";
import { usePlayback } from "../store/playback";
import { usePreferences } from "../store/preferences";
import { setOffers, type Offer } from "../store/results";
import { chooseChord, useSelection } from "../store/selection";
import { say, songNow, useSong } from "../store/song";
import { workers } from "../workers/sync";
import { logged } from "./log";

const MOST_PREPARED = 60;
const prepared = new Map<string, Edit>();

/** The offer's edit with its voicings and, when wanted, the bass that follows. */
async function prepare(offer: Offer): Promise<Edit> {
  if (offer.whole) return offer.edit;
  const { bassFollows } = usePreferences.getState();
  const id = `${useSong.getState().version}:${offer.id}:${bassFollows}`;
  const known = prepared.get(id);
  if (known) return known;
  const result = await workers.writer.withFollowing(offer.edit, bassFollows);
  const edit = result.ok ? result.value : offer.edit;
  if (prepared.size > MOST_PREPARED) prepared.clear();
  prepared.set(id, edit);
  return edit;
}

/** One bar before the place, to its end and a bar after it. */
const stretch = (offer: Offer, bar: Ticks, end: Ticks) =>
  offer.whole
    ? { from: offer.from, to: offer.to }
    : {
        from: Math.max(0, Math.floor(offer.from / bar) * bar - bar),
        to: Math.min(end, Math.ceil(offer.to / bar) * bar + bar),
      };

export async function auditionOffer(offer: Offer, bar: Ticks, end: Ticks): Promise<void> {
  usePlayback.setState({ lastOffer: offer.id });
  const result = Edit.apply(songNow(), await prepare(offer));
  const { from, to } = stretch(offer, bar, end);
  if (result.ok) await audition(result.value.song, offer.label, offer.id, { from, to });
  else say(result.error);
}

/** Id of the preview that plays what is written where an offer would change it. */
const WRITTEN = "written:";
export const isWritten = (previewId: string): boolean => previewId.startsWith(WRITTEN);

/** What is written, at the same spot. */
export async function auditionWritten(offer: Offer, bar: Ticks, end: Ticks): Promise<void> {
  const { from, to } = stretch(offer, bar, end);
  await audition(songNow(), "what is written", WRITTEN + offer.id, { from, to });
}

/** The line that taking an offer writes into the log. */
function lineFor({ said, label, edit, from }: Offer): Edit {
  const { section } = useSelection.getState();
  const parts = edit.do === "setNotes" ? { parts: [edit.part] } : {};
  return logged({ what: `Took ${said ?? label}`.slice(0, MOST_SAID), section, tick: Math.max(0, from), ...parts });
}
/** Characters of a line. */
const MOST_SAID = 400;

export async function acceptOffer(offer: Offer): Promise<void> {
  const more = (await offer.also?.()) ?? [];
  const prepared = await prepare(offer);
  const edit: Edit = { do: "all", label: offer.label, edits: [prepared, ...more, lineFor(offer)] };
  endPreview();
  if (!useSong.getState().edit(edit)) return;
  offer.taken?.();
  if (offer.whole) return;
  setOffers([]);
  chooseChord(null);
}
