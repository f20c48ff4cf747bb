import { useState } from "react";
import { Format } from "../../core/src/index";
import { OpenFile } from "./OpenFile";
import "./DropFile.scss";

/** A place to choose a file or drop one: every format that can be opened. It becomes a song of its own. */
export function DropFile({ open }: { open(file: File): void }) {
  const [over, setOver] = useState(false);
  return (
    <div
      className={`drop-file${over ? " over" : ""}`}
      onDragOver={(e) => {
        if (!e.dataTransfer.types.includes("Files")) return;
        e.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(e) => {
        e.preventDefault();
        setOver(false);
        const file = e.dataTransfer.files[0];
        if (file) open(file);
      }}
    >
      <OpenFile accept={Format.pickerText(Format.READABLE)} open={open}>
        Open a file …
      </OpenFile>
      <span className="small">
        or drop one here: {Format.READABLE.flatMap((f) => f.extensions.map((e) => `.${e}`)).join(", ")}. It becomes a
        song of its own; nothing here is overwritten.
      </span>
    </div>
  );
}
