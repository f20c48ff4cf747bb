/** What of a key press is read. */
export interface Press {
  key: string;
  shiftKey: boolean;
  altKey: boolean;
  ctrlKey: boolean;
  metaKey: boolean;
}

/** A key of a place and what it does there: the same row feeds the handler and the list of keys. */
export interface Shortcut<Ctx> {
  /** As the list shows it: "Ctrl ← →". */
  keys: string;
  what: string;
  /** How the same is done with the mouse. */
  mouse?: string;
  /** The presses it answers to: "mod+shift+arrowleft". None where only the mouse does it. */
  on: readonly string[];
  /** False where it means nothing just now: the browser and what stands around may have the key. */
  run(ctx: Ctx, press: Press): boolean | void;
}

/** A press as the rows write it: modifiers in the order mod, alt, shift, then the key in small letters. */
export const pressText = ({ key, shiftKey, altKey, ctrlKey, metaKey }: Press): string =>
  `${ctrlKey || metaKey ? "mod+" : ""}${altKey ? "alt+" : ""}${shiftKey ? "shift+" : ""}${key.toLowerCase()}`;

/** The same keys with each of some modifiers: `withAny(["arrowup"], "shift+")`. */
export const withAny = (keys: readonly string[], ...modifiers: readonly string[]): string[] =>
  ["", ...modifiers].flatMap((modifier) => keys.map((key) => modifier + key));

/** Runs the first row that answers to a press. True when the key meant something. */
export function runShortcut<Ctx>(rows: readonly Shortcut<Ctx>[], press: Press, ctx: Ctx): boolean {
  const text = pressText(press);
  return rows.some((row) => row.on.includes(text) && row.run(ctx, press) !== false);
}

/** −1, 1, or 0: the way an arrow to the side points, or one upward. */
export const sidewaysOf = ({ key }: Press): number => ({ ArrowLeft: -1, ArrowRight: 1 })[key] ?? 0;
export const upwardOf = ({ key }: Press): 1 | -1 => (key === "ArrowUp" ? 1 : -1);
