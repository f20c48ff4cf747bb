import type { Part } from "../../../core/src/index";
import type { SectionData } from "../../store/sectionData";

export interface BassProps {
  data: SectionData;
  part: Part;
}
