/** Instruments: range, clef, transposition, how they are held and how loud they are. */
export {
  INSTRUMENTS as ALL,
  instrumentOf as of,
  instrumentsFor as forRole,
  midiRange as range,
  CLEFS,
  SOUNDS,
} from "../theory/instrument/instruments";
export { strengthOf as strength } from "../theory/instrument/loudness";
export { twoHands as hands } from "../theory/instrument/hands";
