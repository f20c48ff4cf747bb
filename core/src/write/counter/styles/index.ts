import type { CounterStyle } from "../style";
import { answer } from "./answer";
import { descending } from "./descending";
import { doubleStops } from "./doubleStops";
import { guideTones } from "./guideTones";
import { ostinato } from "./ostinato";
import { percussion } from "./percussion";
import { species } from "./species";
import { sustained } from "./sustained";
import { variation } from "./variation";

/** All ways of writing a counter melody; a new one is one file and one line here. */
export const COUNTER_STYLES: readonly CounterStyle[] = [
  answer,
  sustained,
  descending,
  guideTones,
  ostinato,
  percussion,
  doubleStops,
  variation,
  species,
];
