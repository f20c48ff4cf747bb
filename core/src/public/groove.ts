/** Drum patterns, accents, and rhythms to stay clear of. */
export {
  DRUM_PATTERNS as PATTERNS,
  patternLanes as lanes,
  mergeLanes as merge,
  stepHits as steps,
  roll,
  withFill,
  withVariation,
} from "../arrange/groove/patterns";
export { euclid } from "../arrange/groove/euclid";
export { parseReference, nearness, moveAway } from "../arrange/groove/reference";
export { moveAttacks as move } from "../arrange/groove/agree";
export { LOUD_KICK } from "../hear/slice/accents";
