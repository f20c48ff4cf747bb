import type { Result } from "../../base/result";
import type { Fact } from "../../facts/memory";
import { accentsAt } from "../../hear/accents/facts";
import { agreeOnAccents, type Agreement } from "./agree";

/** What players whose accents miss each other could agree on. */
export const agreementAt: Fact<[section: string], Result<Agreement>> = {
  id: "agreement",
  of: (read, section) => agreeOnAccents(read.song, section, read.get(accentsAt, section)),
};
