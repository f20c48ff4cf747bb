export {
  engrave,
  engraveDrums,
  engraveGrand,
  writtenPitch,
  writtenSymbol,
  type EngravedChord,
  type EngravedPart,
  type EngravedStaff,
} from "./engrave";
export { legendOf } from "./percussion";
