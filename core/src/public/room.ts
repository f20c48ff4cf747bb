/** Who is in the way of a voice. */
export { roomForVoice as find, roomOffers as offers } from "../arrange/room/room";
