import { applyEdit, type Edit, type Ticks } from "../../../core/src/index";
import { endPreview, audition, useSound } from "../../audio/sound";
import { useSong } from "../../store/song";
import { useView, type Offer } from "../../store/view";
import { workers } from "../../workers/client";

/** Whether the bass goes along with changed chords, in listening and in taking. */
export const bassFollows = { on: true };

const prepared = new Map<string, Edit>();

/** The offer's edit with its voicings and, when wanted, the bass that follows. */
async function prepare(offer: Offer): Promise<Edit> {
  if (offer.whole) return offer.edit;
  const { version } = useSong.getState();
  const id = `${version}:${offer.id}:${bassFollows.on}`;
  const known = prepared.get(id);
  if (known) return known;
  const result = await workers.writer.withFollowing(offer.edit, bassFollows.on);
  const edit = result.ok ? result.value : offer.edit;
  if (prepared.size > 60) prepared.clear();
  prepared.set(id, edit);
  return edit;
}

/** One bar before the place, to its end and a bar after it. */
const around = (offer: Offer, bar: Ticks, end: Ticks) =>
  offer.whole
    ? { from: offer.from, to: offer.to }
    : {
        from: Math.max(0, Math.floor(offer.from / bar) * bar - bar),
        to: Math.min(end, Math.ceil(offer.to / bar) * bar + bar),
      };

export async function auditionOffer(offer: Offer, bar: Ticks, end: Ticks): Promise<void> {
  const edit = await prepare(offer);
  const { song, say } = useSong.getState();
  const result = song && applyEdit(song, edit);
  if (!result) return;
  const range = around(offer, bar, end);
  if (result.ok) await audition(result.value.song, offer.label, offer.id, range.from, range.to);
  else say(result.error);
}

/** What is written, at the same spot. */
export async function auditionWritten(offer: Offer, bar: Ticks, end: Ticks): Promise<void> {
  const { song } = useSong.getState();
  const range = around(offer, bar, end);
  if (song) await audition(song, "what is written", `written:${offer.id}`, range.from, range.to);
}

export async function acceptOffer(offer: Offer): Promise<void> {
  const edit = await prepare(offer);
  endPreview();
  if (!useSong.getState().edit(edit)) return;
  if (!offer.whole) useView.getState().set({ offers: [], chords: [], chord: null });
}

/** The three things one does with an offer. */
export function OfferButtons({ offer, bar, end }: { offer: Offer; bar: Ticks; end: Ticks }) {
  const heard = useView((s) => s.preview?.id === offer.id);
  const playing = useSound((s) => s.playing);
  return (
    <span className="offer-buttons">
      <button type="button" aria-pressed={heard && playing} onClick={() => void auditionOffer(offer, bar, end)}>
        {heard && playing ? "Stop" : "Hear"}
      </button>
      <button type="button" onClick={() => void acceptOffer(offer)}>
        Take
      </button>
    </span>
  );
}
