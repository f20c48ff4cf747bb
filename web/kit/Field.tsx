import FormControl from "react-bootstrap/FormControl";

/** A line of text that is taken when it is left or with Enter. */
export const Field = ({
  label,
  value,
  placeholder,
  commit,
  leave,
  autoFocus,
}: {
  label: string;
  value: string;
  placeholder?: string;
  /** Takes a text that has changed. */
  commit(text: string): unknown;
  /** Called when it is left, changed or not. */
  leave?(): void;
  autoFocus?: boolean;
}) => (
  <FormControl
    bsPrefix="field"
    key={value}
    aria-label={label}
    placeholder={placeholder}
    defaultValue={value}
    autoFocus={autoFocus}
    onKeyDown={(e) => {
      e.stopPropagation();
      if (e.key === "Enter") e.currentTarget.blur();
    }}
    onBlur={(e) => {
      const text = e.target.value.trim();
      if (text !== value) commit(text);
      leave?.();
    }}
  />
);
