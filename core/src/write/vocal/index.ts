/** Voices beside a tune. */
export { VOCAL_SCHOOLS } from "./schools";
export type { VocalSchool } from "./school";
export { tunesFor } from "./context";
export { vocalRows, type VocalReport } from "./measures";
export { vocalSettings, type VocalSettings } from "./settings";
export type { RoughSpot } from "./spots";
export * from "./take";
export * from "./write";
