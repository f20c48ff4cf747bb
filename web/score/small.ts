import { Annotation, type StaveModifier, type StaveNote } from "vexflow/bravura";

/** Keeps room to the right of a note for what is written over or under it elsewhere. */
export class Spacer extends Annotation {
  constructor(private readonly wide: number) {
    super("");
    this.setJustification(Annotation.HorizontalJustify.LEFT).setVerticalJustification(
      Annotation.VerticalJustify.BOTTOM,
    );
  }
  override getWidth(): number {
    return this.wide;
  }
  override draw(): void {
    this.setRendered();
  }
}

/** Distance of the lines of a small staff, and the size of its signs against the usual one. */
export const SMALL_GAP = 7;
const SMALL = 0.7;

interface Sign {
  fontSizeInPoints: number;
  fontSize: string | number;
}
const shrink = (sign: Sign): void => void (sign.fontSize = sign.fontSizeInPoints * SMALL);

/** A key signature makes its signs when it is measured; its width is theirs. */
export function shrinkModifier(modifier: StaveModifier): void {
  const width = modifier.getWidth();
  const { children } = modifier as unknown as { children: Sign[] };
  for (const sign of children) shrink(sign);
  if (children.length) modifier.setWidth(width * SMALL);
  else {
    shrink(modifier);
    modifier.setWidth(modifier.getWidth() + 5);
  }
}

export function shrinkNote(note: StaveNote): void {
  for (const head of note.noteHeads ?? []) shrink(head);
  for (const modifier of note.getModifiers()) shrink(modifier);
}
