import type { VoicingStyle } from "../style";
import { block } from "./block";
import { close } from "./close";
import { drop2 } from "./drop2";
import { drop24 } from "./drop24";
import { drop3 } from "./drop3";
import { everyOf } from "./every";
import { fourPart } from "./fourPart";
import { keyboard } from "./keyboard";
import { open } from "./open";
import { power } from "./power";
import { quartal } from "./quartal";
import { rootlessAny } from "./rootless";
import { comping, picking, shapes } from "./shapes";
import { shell } from "./shell";
import { single } from "./single";
import { spread } from "./spread";
import { upperStructure } from "./upperStructure";

const STYLES: readonly VoicingStyle[] = [
  keyboard,
  shapes,
  picking,
  comping,
  close,
  open,
  drop2,
  drop3,
  drop24,
  spread,
  shell,
  rootlessAny,
  quartal,
  power,
  upperStructure,
  fourPart,
  block,
  single,
];

/** All voicing styles; a new one is one file and one line above. */
export const VOICING_STYLES: readonly VoicingStyle[] = [
  keyboard,
  everyOf(STYLES.filter((s) => !s.alone)),
  ...STYLES.slice(1),
];
