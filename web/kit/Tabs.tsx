import { firstOf } from "../../core/src/index";
import { openTab, usePreferences } from "../app/store/preferences";
import type { ComponentType, ReactNode } from "react";
import Nav from "react-bootstrap/Nav";

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
  return (
    <Nav
      bsPrefix="tabs"
      role="tablist"
      aria-label={label}
      activeKey={open.id}
      onSelect={(id) => (id === null ? undefined : openTab(row, id))}
    >
      {tabs.map((t) => (
        <Nav.Link key={t.id} as="button" type="button" bsPrefix="tab" id={`tab-${row}-${t.id}`} eventKey={t.id}>
          {t.title}
          {mark?.(t.id)}
        </Nav.Link>
      ))}
    </Nav>
  );
}
