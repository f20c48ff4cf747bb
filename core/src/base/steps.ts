/**
 * Work that can be looked at while it goes on: it tells each step, and ends early, with what there is, where it is
 * answered `false`. Anything else, nothing too, lets it go on.
 */
export type Steps<Now, Made> = Generator<Now, Made, boolean | undefined>;

/** What work in steps makes when nobody looks. */
export function madeOf<Made>(steps: Steps<unknown, Made>): Made {
  let now = steps.next();
  while (!now.done) now = steps.next();
  return now.value;
}

/** The same work, which tells its steps in other words. */
export function* toldAs<Now, Told, Made>(steps: Steps<Now, Made>, told: (now: Now) => Told): Steps<Told, Made> {
  let now = steps.next();
  while (!now.done) now = steps.next(yield told(now.value));
  return now.value;
}
