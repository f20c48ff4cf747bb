import { XMLBuilder } from "fast-xml-parser";

/** An element in the order it is written: its name, what is in it, its attributes. */
export interface Element {
  name: string;
  children: (Element | string)[];
  attributes: Record<string, string>;
}

type Content = Element | string | number | null | undefined | false;

/** An element; contents that are absent are left out. */
export const el = (
  name: string,
  content: Content | Content[] = [],
  attributes: Record<string, string | number> = {},
): Element => ({
  name,
  children: (Array.isArray(content) ? content : [content]).flatMap((c): (Element | string)[] =>
    c === null || c === undefined || c === false ? [] : [typeof c === "number" ? String(c) : c],
  ),
  attributes: Object.fromEntries(Object.entries(attributes).map(([key, value]) => [key, String(value)])),
});

type Ordered = Record<string, unknown>;

function ordered({ name, children, attributes }: Element): Ordered {
  const node: Ordered = { [name]: children.map((c) => (typeof c === "string" ? { "#text": c } : ordered(c))) };
  if (Object.keys(attributes).length)
    node[":@"] = Object.fromEntries(Object.entries(attributes).map(([key, value]) => [`@_${key}`, value]));
  return node;
}

const builder = new XMLBuilder({ preserveOrder: true, ignoreAttributes: false, suppressEmptyNode: true });

/** The document with its declaration. */
export const writeXml = (root: Element, doctype: string): string =>
  `<?xml version="1.0" encoding="UTF-8" standalone="no"?>\n${doctype}\n${builder.build([ordered(root)])}\n`;
