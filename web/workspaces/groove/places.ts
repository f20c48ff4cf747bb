import { Meter, type Ticks } from "../../../core/src/index";

/** A place within the bar, without naming the bar. */
export const inBar = (meter: Meter, tick: Ticks): string => Meter.position(meter, tick).replace("bar 1, ", "");
