import type { Locator } from '@playwright/test';

/** Texts of drawings that lie over one another, as the browser sets them; each drawing by itself. */
export const overlaps = (drawings: Locator, texts = 'text'): Promise<string[]> =>
  drawings.evaluateAll(
    (all, selector) =>
      all.flatMap((svg) => {
        const boxes = [...svg.querySelectorAll(selector)]
          .filter((text) => text.textContent !== '')
          .map((text) => ({ text: text.textContent, box: text.getBoundingClientRect() }));
        return boxes.flatMap((a, i) =>
          boxes
            .slice(i + 1)
            .filter(
              (b) =>
                // A line's box is taller than its letters.
                a.box.left < b.box.right - 1 &&
                b.box.left < a.box.right - 1 &&
                a.box.top < b.box.bottom - 4 &&
                b.box.top < a.box.bottom - 4,
            )
            .map((b) => `${a.text} / ${b.text}`),
        );
      }),
    texts,
  );
