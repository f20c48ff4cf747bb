/** Plain values: what two of them have in common. */
export { kept, keptItems, sameValue as same, sharing } from "../base/plain";
