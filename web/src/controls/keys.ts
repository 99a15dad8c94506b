import { useEffect } from 'react';
import { useStable } from './useStable';

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName));

/** Hears single keys while nobody types and no dialog is open; a key that is held down counts once. */
export const useKeys = (press: (key: string) => void): void => {
  const stable = useStable(press);
  useEffect(() => {
    const hear = (event: KeyboardEvent): void => {
      if (event.ctrlKey || event.metaKey || event.altKey || event.repeat) return;
      if (!isTyping(event.target) && !document.querySelector('[role=dialog]')) stable(event.key);
    };
    window.addEventListener('keydown', hear);
    return () => window.removeEventListener('keydown', hear);
  }, [stable]);
};
