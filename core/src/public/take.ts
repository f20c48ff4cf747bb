/** Kept states: how they differ from what stands there, and what in them is worth taking. */
export { barsOf as bars, differenceOf as difference, hasRoom } from "../song/takes";
export { bestBars } from "../arrange/figure/bestBars";
