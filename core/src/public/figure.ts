/** Figures and bars that are carried elsewhere: refitted to other chords, moved along the scale, given other values. */
export { refit, alongScale } from "../arrange/figure/refit";
export { FIGURE_SHAPES as SHAPES, shaped as shape, restruck as strike } from "../arrange/figure/shape";
export { pieceOf as piece } from "../song/stretch";
