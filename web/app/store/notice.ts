import { create } from "zustand";

/** A note about something that was just done and can be taken back from where it is told. */
interface Notice {
  text: string;
  /** Line by line, where there is more to say. */
  list?: readonly string[];
  /** The song it is about, where that is still to be opened. */
  about?: string;
  /** What the button does, and what it is called. */
  act?: { label: string; run(): void };
}

export const useNotice = create<{ notice: Notice | null }>(() => ({ notice: null }));

export const tell = (notice: Notice | null): void => useNotice.setState({ notice });

/** How long a passing remark stands, in milliseconds. */
const WHILE = 8000;

/** Tells something that asks for nothing: it goes by itself. */
export function tellForAWhile(text: string): void {
  const notice = { text };
  tell(notice);
  setTimeout(() => void (useNotice.getState().notice === notice && tell(null)), WHILE);
}
