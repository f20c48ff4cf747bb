import type { Part } from "../../core/src/index";
import type { SectionData } from "../app/store/sectionData";

/** What every tab of a bench knows: the section in view, and the part that is worked on. */
export interface PartProps {
  data: SectionData;
  part: Part;
}
