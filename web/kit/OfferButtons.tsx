import type { Ticks } from "../../core/src/index";
import { acceptOffer, auditionOffer } from "../app/commands/offers";
import type { Offer } from "../app/store/results";
import { HearTake } from "./HearTake";

/** An offer of the open tab, heard and taken. */
export const OfferButtons = ({ offer, bar, end }: { offer: Offer; bar: Ticks; end: Ticks }) => (
  <HearTake id={offer.id} hear={() => auditionOffer(offer, bar, end)} take={() => acceptOffer(offer)} />
);
