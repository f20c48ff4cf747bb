export {
  engrave,
  engraveForm,
  engraveGrand,
  type EngravedPart,
  type EngravedPass,
  type EngravingOptions,
} from "./engrave";
export { writtenKey, writtenPitch, writtenSymbol } from "./reading";
export { legendOf } from "./percussion";
export {
  ledgersOf,
  staffStep,
  TOP_LINE,
  voicesIn,
  type EngravedChord,
  type EngravedNote,
  type EngravedStaff,
  type StaffClef,
} from "./staff";
export type { Dynamic, SungSyllable } from "./marks";
export { tablature, type Tablature, type TabMoment } from "./tab";
export { LAYOUTS, type Layout } from "./slashes";
export { engraveBlocks, ORDERS, pagesOf, tunePart, type Order, type PageBlock, type Pages } from "./pages";
