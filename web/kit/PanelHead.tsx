import type { ReactNode } from "react";
import "./style.scss";

/** The head of a panel: it stays where it is while what is below scrolls. */
export const PanelHead = ({ title, children }: { title: ReactNode; children?: ReactNode }) => (
  <div className="panel-head">
    <h2>{title}</h2>
    {children}
  </div>
);
