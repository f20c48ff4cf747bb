/** Chooses a song file; the same file can be chosen again. */
export function OpenFile({ open }: { open(file: File): void }) {
  return (
    <label className="button">
      Open a JSON file …
      <input
        type="file"
        accept=".json,application/json"
        className="visually-hidden"
        onChange={(e) => {
          const file = e.target.files?.[0];
          e.target.value = "";
          if (file) open(file);
        }}
      />
    </label>
  );
}
