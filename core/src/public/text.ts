/** Words of a sentence. */
export { capital, counted, freeName, withArticle } from "../theory/words/english";
