import { edits } from "./edits";
edits();
