import { firstOf, nth } from "../../core/src/index";
import { openTab, usePreferences } from "../app/store/preferences";
import type { ComponentType, ReactNode } from "react";

/** One tab of a row: what it is called, and what it shows. */
export interface Tab<P> {
  id: string;
  title: string;
  Tab: ComponentType<P>;
}

/** The open tab of a row; the first one where none was opened. */
export function useTab<P>(row: string, tabs: readonly Tab<P>[]): Tab<P> {
  const open = usePreferences((s) => s.tabs[row]);
  return tabs.find((t) => t.id === open) ?? firstOf(tabs);
}

interface Props<P> {
  /** Name of the row, under which the open tab is kept. */
  row: string;
  label: string;
  tabs: readonly Tab<P>[];
  /** What stands beside a tab's title, such as a count. */
  mark?(id: string): ReactNode;
}

/** A row of tabs; what the open one shows is drawn by whoever knows its data. */
export function Tabs<P>({ row, label, tabs, mark }: Props<P>) {
  const open = useTab(row, tabs);
  const move = (step: number) => {
    const next = nth(tabs, (tabs.indexOf(open) + step + tabs.length) % tabs.length);
    openTab(row, next.id);
    document.getElementById(`tab-${row}-${next.id}`)?.focus();
  };
  return (
    <div
      className="tabs"
      role="tablist"
      aria-label={label}
      onKeyDown={(e) => {
        const step = { ArrowLeft: -1, ArrowRight: 1 }[e.key];
        if (!step) return;
        e.preventDefault();
        move(step);
      }}
    >
      {tabs.map((t) => (
        <button
          key={t.id}
          id={`tab-${row}-${t.id}`}
          type="button"
          role="tab"
          aria-selected={t === open}
          tabIndex={t === open ? 0 : -1}
          onClick={() => openTab(row, t.id)}
        >
          {t.title}
          {mark?.(t.id)}
        </button>
      ))}
    </div>
  );
}
