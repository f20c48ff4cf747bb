import { Bass, Meter, Pitch, type RoleSpan, Slice, Song, type Ticks } from "../../core/src/index";
import { partOfReal, type SectionData } from "../app/store/sectionData";
import { useSelection } from "../app/store/selection";

/** How strong a place of the bar is, in words. */
function weightWords(meter: Meter, tick: Ticks): string {
  const level = Meter.level(meter, tick);
  if (level === 0) return "on the downbeat";
  if (level === -1) return "in the middle of the bar";
  if (level === -2) return "on a beat";
  return "between beats";
}

/** What a tone is over its chord, and which non-chord tone it is where it is one. */
export function roleWords(span: RoleSpan): string {
  if (!span.chord) return "no chord sounds";
  const role = `${Slice.ROLE_WORDS[span.role] ?? span.role} of ${span.chord.symbol}`;
  const kind = Slice.textbook(span);
  if (kind) return `${role}, ${span.accented ? "accented " : ""}${Slice.KIND_WORDS[kind]}`;
  if (span.kind === "outside") return `${role}, outside the chord`;
  return role;
}

/** What the chosen note is at every chord it sounds through, and why it is there. */
export function NoteReason({ data, part }: { data: SectionData; part: string }) {
  const chosen = useSelection((s) => s.notes);
  if (chosen.part !== part || chosen.ids.length !== 1) return null;
  const real = partOfReal(data, part);
  const note = real.notes.find((n) => n.id === chosen.ids[0]);
  if (!note) return null;
  const spans = Slice.roles(data.real, real).get(note) ?? [];
  const onKick = data.kicks.some((k) => k.start === note.start);
  const reason = Bass.reason(note, spans, onKick);
  return (
    <p className="reason">
      <b>
        {Pitch.typesetAll(note.pitch)}, {Meter.position(data.meter, note.start)}:
      </b>{" "}
      {Pitch.typesetAll(spans.map(roleWords).join("; then "))}, {weightWords(data.meter, note.start)}.{" "}
      {reason && `${Pitch.typesetAll(Song.reason(reason))}.`}
      {!reason && spans[0]?.chord && "No reason found: outside the chord and not led anywhere."}
    </p>
  );
}
