import { useEffect, useState } from "react";
import type { Song } from "../../core/src/index";
import { api } from "../app/api";
import { useSong } from "../app/store/song";

/** The song that is open, or as it is stored. */
export function useOpened(id: string): { song: Song | null; failed: string | null } {
  const open = useSong((s) => s.song);
  const [stored, setStored] = useState<Song | null>(null);
  const [failed, setFailed] = useState<string | null>(null);
  useEffect(() => {
    if (open?.id === id) return;
    api.get(id).then(
      ({ song }) => setStored(song),
      (error: unknown) => setFailed(error instanceof Error ? error.message : String(error)),
    );
  }, [id, open]);
  return { song: open?.id === id ? open : stored, failed };
}
