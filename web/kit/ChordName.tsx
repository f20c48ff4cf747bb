import { symbolPieces } from "./symbolPieces";

/** A chord symbol as it is printed: large root, raised quality, bass after a slash. */
export function ChordName({ symbol }: { symbol: string }) {
  if (symbol === "N.C.") return <span className="chord-name none">N.C.</span>;
  const { root, raised, slash } = symbolPieces(symbol);
  return (
    <span className="chord-name" aria-label={symbol}>
      {root}
      {raised && <sup>{raised}</sup>}
      {slash && <span className="slash">{slash}</span>}
    </span>
  );
}
