/** Parts as they are written. */
export { engrave, engraveGrand as grand } from "../files/notation/engrave";
export { engraveBlocks as blocks, pagesOf as pages, tunePart } from "../files/notation/pages";
export { legendOf as legend } from "../files/notation/percussion";
export { writtenKey, writtenSymbol } from "../files/notation/reading";
export { LAYOUTS } from "../files/notation/slashes";
export { staffStep, TOP_LINE, voicesIn } from "../files/notation/staff";
export { tablatureAt as tablature } from "../files/notation/tab";
