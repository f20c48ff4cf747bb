/** What tests of the application need of its core, and its demo songs: bundled as one script (see orchard.ts). */
export * from "../core/src/index";
export { eightParts } from "../bench/songs";
export { demoSongs } from "../demo/songs";
