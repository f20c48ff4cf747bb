import { type FormPass, Key, type Pass, Song } from "../../../core/src/index";
import { addPass, loopPasses, movePass, playFrom, removePass, toggleOut, typedBars } from "../../app/commands/form";
import { usePlayback } from "../../app/store/playback";
import { useSelection } from "../../app/store/selection";
import { edit, say, useOfSong } from "../../app/store/song";
import { Check } from "../../kit/Check";
import { InPlace } from "../../kit/InPlace";
import { Select, type Choice } from "../../kit/Select";
import { keyText, ownText } from "../../kit/texts";
import { Toggle } from "../../kit/Toggle";
import { keyMove, SectionTime, SEMITONES } from "./SectionTime";
import { Button } from "../../kit/Button";

/** One pass: its name, the bars that are played, its key, who plays; and what belongs to its section alone. */
export function PassDetails({ pass }: { pass: FormPass }) {
  const song = useOfSong((s) => s);
  const stored = Song.pass(song, pass.id);
  const section = Song.section(song, pass.section);
  const looped = usePlayback((s) => s.wholeSong && s.passes?.from === pass.id && s.passes.to === pass.id);
  if (!stored || !section) return null;
  const [from, to] = stored.bars ?? [0, section.bars];
  const home = Song.keyOf(song, section);
  const muted = stored.muted ?? [];
  const set = (change: Parameters<typeof setPass>[1]) => setPass(pass.id, change);
  const unlike =
    stored.name !== undefined || stored.bars !== undefined || stored.transpose !== undefined || muted.length > 0;
  return (
    <div className="form-details" role="group" aria-label={`This pass: ${pass.name}`}>
      <InPlace label="Name of this pass" className="strong" value={pass.name} commit={(name) => set({ name })} />
      <InPlace
        label={`Bars that are played, of ${section.bars}`}
        width={48}
        value={to - from === 1 ? String(to) : `${from + 1}–${to}`}
        commit={(text) => {
          const bars = typedBars(text);
          if (bars) return set({ bars });
          say({
            code: "form.bars",
            message: `“${text}” is no stretch of bars`,
            hint: `Write 1–${section.bars}, or one bar.`,
          });
          return false;
        }}
        suffix="bars"
      />
      <Select<number>
        label="Key of this pass"
        text="in"
        value={stored.transpose ?? 0}
        set={(transpose) => set({ transpose })}
        choices={SEMITONES.map((n): Choice<number> => [n, n === 0 ? keyText(Key.name(home)) : keyMove(home, n)])}
      />
      <span className="controls" role="group" aria-label="Who plays in this pass">
        {song.parts.map((p) => (
          <Check key={p.id} on={!muted.includes(p.id)} set={() => toggleOut(pass.id, p.id)}>
            {p.name}
          </Check>
        ))}
      </span>
      <span className="controls">
        <Button onClick={() => playFrom(pass)}>Play from here</Button>
        <Toggle on={looped} title="Play this pass again and again" press={() => loopPasses(pass.id, pass.id)}>
          loop this pass
        </Toggle>
        <Button onClick={() => addPass(pass.section, pass.id, pass.id)}>Repeat it</Button>
        <Button aria-label="Earlier" title="Earlier in the form (Alt ←)" onClick={() => movePass(pass.id, -1)}>
          ←
        </Button>
        <Button aria-label="Later" title="Later in the form (Alt →)" onClick={() => movePass(pass.id, 1)}>
          →
        </Button>
        <Button onClick={() => removePass(pass)}>Take it out</Button>
        {unlike && (
          <Button
            title="Name, bars, key and parts as the section has them"
            onClick={() => set({ name: null, bars: null, transpose: null, muted: null })}
          >
            As its section
          </Button>
        )}
      </span>
      <OwnBars song={song} pass={stored} />
      <SectionTime song={song} section={section} />
    </div>
  );
}

/** Bars that the pass has for itself, each with what it is and the way back. */
function OwnBars({ song, pass }: { song: Song; pass: Pass }) {
  const here = useSelection((s) => s.here);
  if (!pass.own && !here) return null;
  return (
    <span className="controls small" role="group" aria-label="Of this pass alone">
      <span className="muted">of this pass alone:</span>
      {pass.own?.map((own) => (
        <span key={own.bars[0]} className="controls">
          bar{own.bars[1] - own.bars[0] > 1 ? "s" : ""} {own.bars[0] + 1}
          {own.bars[1] - own.bars[0] > 1 ? `–${own.bars[1]}` : ""}, {ownText(song, own)}
          <Button onClick={() => edit({ do: "giveBack", pass: pass.id, bars: own.bars })}>Give back</Button>
        </span>
      )) ?? <span>nothing yet; what you write now is</span>}
    </span>
  );
}

type Change = {
  name?: string | null;
  bars?: [number, number] | null;
  transpose?: number | null;
  muted?: string[] | null;
};
const setPass = (pass: string, change: Change): boolean => edit({ do: "setPass", pass, ...change });
