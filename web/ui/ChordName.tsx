import { typeset } from "../../core/src/index";

/** A chord symbol as it is printed: large root, raised quality, bass after a slash. */
export function ChordName({ symbol }: { symbol: string }) {
  if (symbol === "N.C.") return <span className="chord-name none">N.C.</span>;
  const match = /^([A-G](?:bb|b|##|x|#)?)(.*)$/.exec(symbol);
  if (!match) return <span className="chord-name">{symbol}</span>;
  const slash = /\/([A-G][b#x]*)$/.exec(match[2]!);
  const quality = slash ? match[2]!.slice(0, -slash[0].length) : match[2]!;
  const minor = /^m(?!aj)/.exec(quality) ? "m" : "";
  return (
    <span className="chord-name" aria-label={symbol}>
      {typeset(match[1]!)}
      {minor}
      <sup>{typeset(quality.slice(minor.length))}</sup>
      {slash && <span className="slash">/{typeset(slash[1]!)}</span>}
    </span>
  );
}
