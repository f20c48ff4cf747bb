/**
 * What React rendered, read from its own tree as its developer tools read it: also in the built application, without a
 * word about it in the code.
 */
import type { Page } from "@playwright/test";

/** A component that rendered: by the first element it shows, and where on the page that stands. */
export interface Rendered {
  /** Tag and first class of the element; empty where nothing is shown. */
  shows: string;
  /** The lane of the score around it, the panel, or another landmark. */
  where: string;
}

declare global {
  interface Window {
    rendered?: Rendered[];
  }
}

/** Counts from now on; to be called before the page is opened. */
export const countRenders = (page: Page): Promise<unknown> =>
  page.addInitScript(() => {
    interface Fiber {
      tag: number;
      flags: number;
      child: Fiber | null;
      sibling: Fiber | null;
      alternate: Fiber | null;
      stateNode: unknown;
    }
    // The numbers are React's own: components of four kinds, elements, and the sign of one that did work.
    const [COMPONENTS, ELEMENT, WORKED] = [[0, 11, 14, 15], 5, 1];
    const tree = {
      element: (fiber: Fiber | null): Element | null => {
        for (let at = fiber; at; at = at.sibling) {
          if (at.tag === ELEMENT) return at.stateNode as Element;
          const inside = tree.element(at.child);
          if (inside) return inside;
        }
        return null;
      },
      tell: (fiber: Fiber) => {
        const shown = tree.element(fiber.child);
        const around = shown?.closest(".lane, #panel, .transport, header, nav");
        const named = around?.id || around?.classList[0] || around?.tagName.toLowerCase();
        const first = shown?.classList[0];
        window.rendered?.push({
          shows: shown ? `${shown.tagName.toLowerCase()}${first ? `.${first}` : ""}` : "",
          where: named ?? "",
        });
      },
      walk: (fiber: Fiber | null) => {
        for (let at = fiber; at; at = at.sibling) {
          const worked = (at.flags & WORKED) !== 0;
          if (COMPONENTS.includes(at.tag) && (worked || !at.alternate)) tree.tell(at);
          // What is the same object as before was not looked at.
          if (at.child !== at.alternate?.child) tree.walk(at.child);
        }
      },
    };
    window.rendered = [];
    Object.assign(window, {
      __REACT_DEVTOOLS_GLOBAL_HOOK__: {
        supportsFiber: true,
        renderers: new Map(),
        inject: () => 1,
        checkDCE: () => undefined,
        onCommitFiberUnmount: () => undefined,
        onPostCommitFiberRoot: () => undefined,
        onCommitFiberRoot: (_: number, root: { current: Fiber }) => tree.walk(root.current),
      },
    });
  });

/** What rendered while something was done. */
export async function rendersOf(page: Page, act: () => Promise<unknown>): Promise<Rendered[]> {
  await page.evaluate(() => void (window.rendered = []));
  await act();
  return page.evaluate(() => window.rendered ?? []);
}
