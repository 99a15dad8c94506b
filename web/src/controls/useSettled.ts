import { useEffect, useState } from 'react';

/** A value that follows once it has stood still for a moment: for work that is not worth a drag's every step. */
export const useSettled = <T>(value: T, afterMs: number): T => {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), afterMs);
    return () => clearTimeout(timer);
  }, [value, afterMs]);
  return settled;
};
