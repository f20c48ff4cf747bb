/** Meters, places and lengths in ticks, 480 to a quarter; tempo in quarters a minute. */
export {
  parseMeter as parse,
  beatsText as beats,
  positionText as position,
  beatText as inBar,
  metricalLevel as level,
  EIGHTH,
  EIGHTH_TRIPLET,
  QUARTER,
  SIXTEENTH,
  SIXTEENTH_TRIPLET,
  THIRTY_SECOND,
} from "../theory/time/meter";
export { feelText as feel, tappedTempo as tapped, ticksToSeconds as seconds } from "../theory/time/swing";
