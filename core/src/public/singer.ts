/** Singers: ranges, keys that fit them, breaths, pages. */
export { fitKey as fit, zoneOf as zone, ZONES, byPower } from "../hear/singer/fit";
export { afterMove } from "../hear/singer/moved";
export { breathsOf as breaths } from "../hear/singer/breaths";
export { cautionFor as caution } from "../hear/singer/caution";
export { rewriteContour as rewrite } from "../hear/singer/contour";
export { singerPage as page } from "../hear/singer/page";
export { singerRange as range, rangeOfPart, VOICES, USUAL_BREATH, singerOf as of, isSung } from "../hear/singer/range";
export { sungBy, timeByPitch } from "../hear/singer/sung";
