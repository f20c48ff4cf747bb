import { sure } from "../../../../base/list";
import { pitchMidi } from "../../../../theory/pitch/pitch";
import { spellAt } from "../../../../song/spell";
import { instrumentOf, midiRange } from "../../../../theory/instrument/instruments";
import { drumOf } from "../../../../song/players";
import { judgeLayers, type LayerProblem } from "../../../../write/bass/layers";
import type { CheckContext, Fix, Rule } from "../../rule";

export const bassLayersRule: Rule = {
  id: "bass-layers",
  title: "Bass layers in each other’s way",
  family: "groove",
  explanation:
    "Several bass sounds take turns, or they are one voice: same pitches, same rhythm, an octave or a sound " +
    "apart. What hurts is disagreement of pitch or rhythm, or two full low octaves at once.",
  source: "common practice",
  severity: { chorale: "warning", band: "warning", jazz: "warning", loop: "warning" },
  find(ctx) {
    const { problems } = judgeLayers(ctx.sliced.real, ctx.meter.bar, ctx.section.bars);
    return problems.map((p) => {
      const amount = () => {
        if (p.kind === "low") return "both below E2";
        if (p.kind === "pitch") return "different pitches";
        return "different beginnings";
      };
      return {
        tick: p.tick,
        duration: p.duration,
        parts: p.layers.map((l) => (drumOf(l) ? sure(ctx.sliced.real.parts.find((x) => x.role === "drums")).id : l)),
        notes: [...p.notes],
        message: p.message,
        amount: amount(),
        fixes: fixesOf(ctx, p),
      };
    });
  },
};

/** The second layer gives way: an octave up, the first one's pitch, its beginning, or silence. */
function fixesOf({ song, section }: CheckContext, problem: LayerProblem): Fix[] {
  const [first, second] = problem.layers.map((id, i) => ({
    part: id,
    note: section.notes[id]?.find((n) => n.id === problem.notes[i]),
  }));
  if (!second?.note) return [];
  const at = { section: section.id, part: second.part };
  const part = sure(song.parts.find((p) => p.id === second.part));
  const [low, high] = midiRange(part.range ?? instrumentOf(part.instrument, song).range);
  const to = (midi: number, label: (pitch: string) => string): Fix[] => {
    if (midi < low || midi > high) return [];
    const pitch = spellAt(song, section, Math.max(0, sure(second.note).start), midi);
    return [{ label: label(pitch), edit: { do: "changeNotes", ...at, notes: [{ id: sure(second.note).id, pitch }] } }];
  };
  const midi = pitchMidi(second.note.pitch);
  const fixes: Fix[] = [];
  if (problem.kind === "low") fixes.push(...to(midi + 12, (p) => `${part.name} an octave higher, ${p}`));
  if (problem.kind === "pitch" && first?.note) {
    const wish = pitchMidi(first.note.pitch);
    const near = [wish + 12, wish, wish - 12, wish + 24].sort((a, b) => Math.abs(a - midi) - Math.abs(b - midi));
    fixes.push(...near.slice(0, 2).flatMap((m) => to(m, (p) => `${part.name} plays ${p} too`)));
  }
  if (problem.kind === "rhythm" && first?.note)
    fixes.push({
      label: `${part.name} begins with it`,
      edit: {
        do: "changeNotes",
        ...at,
        notes: [{ id: second.note.id, start: first.note.start, duration: first.note.duration }],
      },
    });
  fixes.push({ label: `${part.name} rests there`, edit: { do: "removeNotes", ...at, notes: [second.note.id] } });
  return fixes.slice(0, 3);
}
