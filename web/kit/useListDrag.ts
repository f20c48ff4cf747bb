import { PointerSensor, useSensor, useSensors } from "@dnd-kit/core";

/** So many pixels begin a drag; less is a click. */
const BEGINS = 5;

/** What starts a drag in a list or a grid: mouse, finger or pen. By keys things are moved with Alt and the arrows. */
export const useListDrag = () => useSensors(useSensor(PointerSensor, { activationConstraint: { distance: BEGINS } }));
