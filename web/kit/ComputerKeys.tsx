import { usePreferences } from "../app/store/preferences";
import { Button } from "./Button";

/** Makes the computer's keys play, or lets them be keys of the application again. */
export function ComputerKeys() {
  const playIn = usePreferences((s) => s.playIn);
  return (
    <Button
      className="toggle"
      aria-pressed={playIn}
      title="A W S E D F … are piano keys from C, Z and X move an octave"
      onClick={(e) => {
        // Keys belong to what is played from here on, Enter too.
        e.currentTarget.blur();
        usePreferences.setState({ playIn: !playIn });
      }}
    >
      computer keys play
    </Button>
  );
}
