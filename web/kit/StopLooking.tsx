import { Button } from "./Button";

/** Ends long work with what it has found until then; seen where the work is not done at once. */
export const StopLooking = ({ stop }: { stop(): void }) => (
  <Button className="quiet late" title="Keep what was found so far" onClick={stop}>
    Stop
  </Button>
);

/** Says what is being looked for, where nothing else does. */
export const Looking = ({ for: what, stop }: { for: string; stop(): void }) => (
  <p className="controls late" role="status">
    <span className="small">Looking for {what} …</span>
    <StopLooking stop={stop} />
  </p>
);
