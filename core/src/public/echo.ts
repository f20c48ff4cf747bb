/** Parts that repeat another one later. */
export { echoReport as report, echoDelays as delays, ECHO_DELAYS as DELAYS } from "../hear/line/echo";
