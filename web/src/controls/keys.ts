import { useLayoutEffect } from 'react';
import { useStable } from './useStable';

/** Inputs that hold no text: letters mean nothing to them. */
const TEXTLESS = ['range', 'checkbox', 'radio', 'file'];

/** Whether a key goes to what has the focus. */
const isTaken = (target: EventTarget | null, key: string): boolean => {
  if (!(target instanceof HTMLElement)) return false;
  if (target instanceof HTMLInputElement && TEXTLESS.includes(target.type))
    return key.length > 1 || key === ' ';
  // Whoever is on a button presses it.
  if (target.closest('button, a, summary') && (key === ' ' || key === 'Enter')) return true;
  return target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName);
};

/** Hears single keys while nobody types and no dialog is open; a key that is held down counts once. */
export const useKeys = (press: (key: string) => void): void => {
  const stable = useStable(press);
  // Before the page is painted: whoever sees who is up can press a key.
  useLayoutEffect(() => {
    const hear = (event: KeyboardEvent): void => {
      if (event.ctrlKey || event.metaKey || event.altKey || event.repeat) return;
      if (!isTaken(event.target, event.key) && !document.querySelector('[role=dialog]'))
        stable(event.key);
    };
    window.addEventListener('keydown', hear);
    return () => window.removeEventListener('keydown', hear);
  }, [stable]);
};
