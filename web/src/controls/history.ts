import { useEffect, useRef, useState } from 'react';

const KEPT = 100;
/** Changes of the same thing that follow each other this fast are undone in one go, milliseconds. */
const TOGETHER_MS = 900;

const inText = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && target.closest('input, textarea, [contenteditable]') !== null;

/**
 * Undo and redo over a value that is held elsewhere, by Ctrl-Z and Ctrl-Y too, but not inside a text
 * field, which has an undo of its own.
 */
export const useHistory = <T>(value: T, set: (next: T) => void) => {
  const [past, setPast] = useState<readonly T[]>([]);
  const [future, setFuture] = useState<readonly T[]>([]);
  const last = useRef({ what: '', at: -Infinity });

  /** @param what changes of the same thing in quick succession count as one */
  const change = (next: T, what = ''): void => {
    const at = performance.now();
    const goesOn = what !== '' && what === last.current.what && at - last.current.at < TOGETHER_MS;
    last.current = { what, at };
    if (!goesOn) setPast([...past.slice(1 - KEPT), value]);
    setFuture([]);
    set(next);
  };
  const undo = (): void => {
    const before = past.at(-1);
    if (before === undefined) return;
    last.current.what = '';
    setPast(past.slice(0, -1));
    setFuture([value, ...future]);
    set(before);
  };
  const redo = (): void => {
    const [next, ...rest] = future;
    if (next === undefined) return;
    last.current.what = '';
    setPast([...past, value]);
    setFuture(rest);
    set(next);
  };

  const keys = useRef({ undo, redo });
  useEffect(() => {
    keys.current = { undo, redo };
  });
  useEffect(() => {
    const press = (event: KeyboardEvent): void => {
      if (!(event.ctrlKey || event.metaKey) || inText(event.target)) return;
      const key = event.key.toLowerCase();
      const act =
        key === 'y' || (key === 'z' && event.shiftKey)
          ? keys.current.redo
          : key === 'z'
            ? keys.current.undo
            : null;
      if (!act) return;
      event.preventDefault();
      act();
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, []);

  return { change, undo, redo, canUndo: past.length > 0, canRedo: future.length > 0 };
};
