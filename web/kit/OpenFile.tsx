import type { ReactNode } from "react";

/** Chooses a file; the same file can be chosen again. */
export function OpenFile({ accept, open, children }: { accept: string; open(file: File): void; children: ReactNode }) {
  return (
    <label className="button">
      {children}
      <input
        type="file"
        accept={accept}
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
