import { type MouseEvent, type RefObject, useCallback, useEffect, useRef } from 'react';

const ANSWERS = '.run-answers';

/**
 * Keeps the focus on the answers for whoever gives them by key or screen reader: the button that was pressed goes
 * with its turn, and the focus must not fall to the page. A finger or mouse needs none.
 */
export const useFocusKept = (): {
  ref: RefObject<HTMLElement | null>;
  onClickCapture: (event: MouseEvent) => void;
} => {
  const ref = useRef<HTMLElement>(null);
  const isByKey = useRef(false);
  useEffect(() => {
    const observer = new MutationObserver(() => {
      if (isByKey.current && document.activeElement === document.body)
        ref.current
          ?.querySelector<HTMLElement>(`${ANSWERS} .answer`)
          ?.focus({ preventScroll: true });
    });
    if (ref.current) observer.observe(ref.current, { childList: true, subtree: true });
    return () => observer.disconnect();
  }, []);
  const onClickCapture = useCallback(({ detail, target }: MouseEvent): void => {
    isByKey.current = detail === 0 && (target as HTMLElement).closest(ANSWERS) !== null;
  }, []);
  return { ref, onClickCapture };
};
