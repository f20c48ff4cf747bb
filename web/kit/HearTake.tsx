import { usePlayback } from "../app/store/playback";
import { useSound } from "../app/audio/sound";
import { Button } from "./Button";

interface Props {
  /** Id of the preview, to show whether it is heard now. */
  id: string;
  hear(): unknown;
  take(): unknown;
  /** What is heard and taken, for those who do not see where the buttons stand. */
  name?: string;
  /** What taking is called here. */
  takeText?: string;
  hearTitle?: string;
  disabled?: boolean;
}

/** The two things one does with what is offered: hear it in place, and take it. */
export function HearTake({ id, hear, take, name, takeText = "Take", hearTitle, disabled = false }: Props) {
  const heard = usePlayback((s) => s.preview?.id === id);
  const playing = useSound((s) => s.playing);
  const on = heard && playing;
  return (
    <span className="hear-take">
      <Button
        aria-pressed={on}
        disabled={disabled}
        title={hearTitle}
        aria-label={name && `${on ? "Stop" : "Hear"}: ${name}`}
        onClick={() => void hear()}
      >
        {on ? "Stop" : "Hear"}
      </Button>
      <Button disabled={disabled} aria-label={name && `${takeText}: ${name}`} onClick={() => void take()}>
        {takeText}
      </Button>
    </span>
  );
}

/** Something that can only be heard; pressed again it stops. */
export function HearButton({ id, hear, children }: { id: string; hear(id: string): unknown; children: string }) {
  const heard = usePlayback((s) => s.preview?.id === id);
  const on = useSound((s) => s.playing) && heard;
  return (
    <Button aria-pressed={on} onClick={() => void hear(id)}>
      {on ? "Stop" : children}
    </Button>
  );
}
