/** What is copied, and set down elsewhere. */
export { clipStart as start, clipOf as of, pasted as paste } from "../song/clip";
