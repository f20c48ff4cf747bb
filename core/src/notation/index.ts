export { engrave, engraveDrums, engraveGrand, writtenPitch, type EngravedChord, type EngravedPart, type EngravedStaff } from "./engrave";
export { legendOf } from "./percussion";
