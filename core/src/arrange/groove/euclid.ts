import { nth } from "../../base/list";

/**
 * Pulses spread over steps as evenly as they go (Toussaint 2005; Bjorklund's algorithm), turned by `rotate` steps to
 * the left. The first step of the unturned rhythm is a pulse.
 */
export function euclid(pulses: number, steps: number, rotate = 0): boolean[] {
  const n = Math.max(1, Math.round(steps));
  const k = Math.min(n, Math.max(0, Math.round(pulses)));
  if (k === 0) return new Array<boolean>(n).fill(false);
  // Groups of a pulse, and what is left over to be shared out among them, until at most one kind remains.
  let groups = Array.from({ length: k }, () => [true]);
  let rest = Array.from({ length: n - k }, () => [false]);
  while (rest.length > 1) {
    const pairs = Math.min(groups.length, rest.length);
    const joined = Array.from({ length: pairs }, (_, i) => [...nth(groups, i), ...nth(rest, i)]);
    const over = groups.length > pairs ? groups.slice(pairs) : rest.slice(pairs);
    groups = joined;
    rest = over;
  }
  const row = [...groups, ...rest].flat();
  const by = ((rotate % n) + n) % n;
  return [...row.slice(by), ...row.slice(0, by)];
}
