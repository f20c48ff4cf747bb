/** Scores for notation programs. */
export { writeMusicXml as write } from "../files/musicxml/write";
