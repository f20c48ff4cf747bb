import { useContext, type ReactNode } from "react";
import Accordion from "react-bootstrap/Accordion";
import AccordionContext from "react-bootstrap/AccordionContext";
import { useAccordionButton } from "react-bootstrap/AccordionButton";
import { Button } from "./Button";

/** A fold has one thing to show. */
const IN = "in";

/** Something that is only shown when it is asked for. */
export const Fold = ({ title, open = false, children }: { title: string; open?: boolean; children: ReactNode }) => (
  <Accordion bsPrefix="fold" {...(open ? { defaultActiveKey: IN } : {})}>
    <Head title={title} />
    <Accordion.Collapse eventKey={IN} mountOnEnter unmountOnExit bsPrefix="fold-body">
      <>{children}</>
    </Accordion.Collapse>
  </Accordion>
);

function Head({ title }: { title: string }) {
  const open = useContext(AccordionContext).activeEventKey === IN;
  const press = useAccordionButton(IN);
  return (
    <Button className="more" aria-expanded={open} onClick={press}>
      {open ? "▾" : "▸"} {title}
    </Button>
  );
}
