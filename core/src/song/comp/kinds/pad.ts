import { raised, type CompKind, type CompNote } from "../kind";

export const pad: CompKind = {
  id: "pad",
  title: "Pad",
  explanation:
    "Holds the same chords evenly, without the chops; a note that stays in the next chord is held on, not struck " +
    "again.",
  source: "common practice",
  voices: false,
  fresh: { name: "Pad", instrument: "pad" },
  settings: ["lift"],
  notes({ chords, playing }) {
    const lift = playing.lift ?? 0;
    const out: CompNote[] = [];
    let sounding = new Map<number, CompNote>();
    for (const chord of chords) {
      const now = new Map<number, CompNote>();
      for (const pitch of chord.pitches) {
        const p = raised(pitch, lift);
        const held = sounding.get(p.midi);
        if (held && held.start + held.duration === chord.start) {
          held.duration += chord.duration;
          now.set(p.midi, held);
        } else {
          const note: CompNote = { chord: chord.id, start: chord.start, duration: chord.duration, ...p, velocity: 58 };
          out.push(note);
          now.set(p.midi, note);
        }
      }
      sounding = now;
    }
    return out;
  },
};
