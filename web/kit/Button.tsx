import type { ComponentPropsWithRef } from "react";
import BsButton from "react-bootstrap/Button";

/** A button in the look of the application; `className="primary"` is the one action of a panel, `quiet` has no edge. */
export const Button = (props: ComponentPropsWithRef<"button">) => <BsButton variant="" {...props} />;
