import { memo } from "react";
import { Meter, Pitch, type RealizedNote, type RoleSpan, Slice, Words } from "../../core/src/index";
import { DOT, DOTS_BELOW, RADIUS } from "./layout";

interface Props {
  note: RealizedNote;
  spans: readonly RoleSpan[];
  x: number;
  y: number;
  width: number;
  /** Sideways shift of the head. */
  aside: number;
  tint: string;
  selected: boolean;
  focusable: boolean;
  editable: boolean;
  names: boolean;
  onKick: boolean;
  finding?: number;
  /** Pixels a tick, for the roles inside a held note. */
  scale: number;
  meter: Meter;
  /** The syllable of the verse that is shown. */
  word: string;
  /** While the note is dragged: whether it lies in the key. */
  inKey?: boolean;
  /** Where words are written: one or two lines along the foot of the lane. */
  lyricY: number;
}

/** What a note is over its chord, in words: a tone of it, a color, and the non-chord tone it is where it is one. */
function saidOf(span: RoleSpan | undefined): string {
  if (!span) return "no chord";
  const kind = Slice.textbook(span);
  if (span.kind === "chord") return Slice.ROLE_WORDS[span.role] ?? span.role;
  const words = kind ? `${span.accented ? "accented " : ""}${Slice.KIND_WORDS[kind]}` : Slice.KIND_WORDS[span.kind];
  return span.kind === "tension"
    ? [Slice.ROLE_WORDS[span.role] ?? span.role, ...(kind ? [words] : [])].join(", ")
    : words;
}

/** While a note is dragged: in the chord, in the key, or outside. */
function DragTag({ x, y, span, inKey }: { x: number; y: number; span: RoleSpan | undefined; inKey: boolean }) {
  const inChord = span?.kind === "chord";
  let where: "outside" | "in the key" | "outside the key" | "in the chord";
  if (!span?.chord) {
    if (inKey) where = "in the key";
    else where = "outside the key";
  } else if (inChord) where = "in the chord";
  else if (inKey) where = "in the key";
  else where = "outside";
  const standing = () => {
    if (inChord) return "";
    if (inKey) return "in-key";
    return "outside";
  };
  return (
    <text className={`drag-tag ${standing()}`} x={x} y={y}>
      {where}
      {span?.chord && !inChord ? `: ${Pitch.typeset(span.role)}` : ""}
    </text>
  );
}

/** The head with its role or its name; far out it is a dot. */
function Head({ cx, y, dot, label }: { cx: number; y: number; dot: boolean; label: string }) {
  return (
    <>
      <circle className="head" cx={cx} cy={y} r={dot ? DOT : RADIUS} />
      {!dot && (
        <text
          x={cx}
          y={y}
          {...(label.length > 2 ? { textLength: RADIUS * 1.6, lengthAdjust: "spacingAndGlyphs" } : {})}
        >
          {label}
        </text>
      )}
    </>
  );
}

/** Its new role where it is held into another chord. */
const HeldRoles = ({ note, spans, x, y, scale }: Pick<Props, "note" | "spans" | "x" | "y" | "scale">) => (
  <>
    {spans
      .slice(1)
      .filter((s) => s.duration * scale > 12)
      .map((span) => (
        <text
          key={span.start}
          className={`held ${span.kind === "chord" || span.kind === "tension" ? "" : "off"}`}
          x={x + (span.start - note.start) * scale + 4}
          y={y - 5}
        >
          {Pitch.typeset(span.label)}
        </text>
      ))}
  </>
);

/** What stands at a note besides its role, where there is room: its non-chord tone, pin, syllable and finding. */
function Signs({ note, spans, x, y, width, cx, word, lyricY, finding }: SignProps) {
  const as = spans[0]?.as;
  return (
    <>
      {as && width > 2 * RADIUS + 6 && (
        <text className="held sign" x={cx + RADIUS + 2} y={y - 4}>
          {Slice.SIGNS[as]}
        </text>
      )}
      {note.pinned && <circle className="pin" cx={cx + 6} cy={y - 7} r={2.6} />}
      {word && (
        <text className="lyric" x={x + 1} y={lyricY}>
          {word === Words.HELD ? "—" : word}
        </text>
      )}
      {finding !== undefined && (
        <text className="finding-mark" x={cx + 12} y={y - 8}>
          {finding}
        </text>
      )}
    </>
  );
}
type SignProps = Pick<Props, "note" | "spans" | "x" | "y" | "width" | "word" | "lyricY" | "finding"> & { cx: number };

const isHollow = (span: RoleSpan | undefined): boolean =>
  span !== undefined && span.kind !== "chord" && span.kind !== "free";

/** A note: a head with its role, a line as long as it lasts, and its new role where it is held into another chord. */
export const NoteMark = memo(function NoteMark(props: Props) {
  const { note, spans, x, y, width, aside, tint, selected, focusable, editable, names, onKick, scale, meter } = props;
  const { inKey } = props;
  const [first] = spans;
  const label = names ? Pitch.typeset(Pitch.note(note.pitch)) : Pitch.typeset(first?.label ?? "–");
  const said = [
    Pitch.spoken(note.pitch),
    saidOf(first),
    Meter.position(meter, note.start),
    ...(onKick ? ["on the kick"] : []),
    ...(note.pinned ? ["pinned"] : []),
  ].join(", ");
  const dot = scale * Meter.QUARTER < DOTS_BELOW;
  const cx = dot ? x + DOT : x + RADIUS + aside * (RADIUS * 2 - 1);
  return (
    <g
      className={["note", tint, isHollow(first) && "hollow", selected && "selected"].filter(Boolean).join(" ")}
      data-note={note.id}
      role="button"
      aria-label={said}
      aria-pressed={selected}
      tabIndex={focusable ? 0 : -1}
    >
      <line className="tail" x1={cx} x2={Math.max(cx + 1, x + width - 2)} y1={y} y2={y} />
      {editable && (
        <rect
          className="grip"
          x={Math.max(cx + RADIUS, x + width - 8)}
          y={y - 7}
          width={10}
          height={14}
          data-grip="true"
        />
      )}
      {note.glideTo && <path className="glide" d={`M${x + width - 12},${y} q8,0 12,-7`} />}
      <Head cx={cx} y={y} dot={dot} label={label} />
      <HeldRoles {...props} />
      {!dot && <Signs {...props} cx={cx} />}
      {inKey !== undefined && <DragTag x={cx + RADIUS + 4} y={y < 24 ? y + 22 : y - 12} span={first} inKey={inKey} />}
    </g>
  );
});
