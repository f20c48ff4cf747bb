/** Drums, their lanes and players. */
export { DRUMS as ALL, DRUM_KINDS as KINDS, TUNABLE } from "../theory/instrument/drums";
export { drumOf as of, drumPlayer as player, laneName, laneTitle } from "../song/players";
