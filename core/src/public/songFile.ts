/** Song files. */
export { readSongFile as read, writeSongFile as write } from "../files/json";
