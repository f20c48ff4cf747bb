/** Where something is read: a section by itself, or one pass of the form. */
export { sectionPlace as section, passPlace as pass } from "../song/place";
