/** The passes of a song: where each lies in ticks and seconds, what it plays, where it leads. */
export { formOf as of, timeText as time } from "../song/form";
export { wayOn, waysOn } from "../song/onward";
export { isUnlike, passView as view } from "../song/passView";
export { busyOf as busy } from "../hear/slice/busy";
