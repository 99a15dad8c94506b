import { useCallback, useLayoutEffect, useRef } from 'react';

/** A handler that stays the same while what it does follows the latest state. */
export const useStable = <A extends unknown[]>(handle: (...args: A) => void) => {
  const latest = useRef(handle);
  useLayoutEffect(() => {
    latest.current = handle;
  });
  return useCallback((...args: A): void => latest.current(...args), []);
};
