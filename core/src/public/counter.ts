/** Counter melodies against a tune. */
export {
  counterLines as write,
  counterSteps as steps,
  counterSettings as settings,
  counterStyleOf as styleOf,
} from "../write/counter/write";
export { COUNTER_STYLES as STYLES } from "../write/counter/styles";
export { tunesFor as leads } from "../write/lines/ground";
