/** Voices beside a tune. */
export { VOCAL_SCHOOLS } from "./schools";
export type { VocalSchool } from "./school";
export { vocalRows, type VocalReport } from "./measures";
export type { VocalSettings } from "./settings";
export type { RoughSpot } from "./spots";
export * from "./take";
export * from "./write";
