/** Counter melodies against a tune. */
export { counterLines as write, counterStyleOf as styleOf } from "../write/counter/write";
export { COUNTER_STYLES as STYLES } from "../write/counter/styles";
export { counterSettings as settings } from "../write/counter/settings";
export { leadsOf as leads } from "../write/counter/context";
