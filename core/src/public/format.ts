/** File formats: what can be opened and written. */
export { FORMATS as ALL, formatOf as of, pickerText, readFile as read, READABLE } from "../files/formats";
