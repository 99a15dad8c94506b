import { useSyncExternalStore } from 'react';

const NARROW = '(max-width: 767px)';

const watch = (onChange: () => void): (() => void) => {
  const query = window.matchMedia(NARROW);
  query.addEventListener('change', onChange);
  return () => query.removeEventListener('change', onChange);
};

/** As narrow as a phone. */
export const useNarrow = (): boolean =>
  useSyncExternalStore(watch, () => window.matchMedia(NARROW).matches);

/** A part of a page that is folded away on a phone, under its title, and open on anything wider. */
export const Fold = ({ title, children }: { title: string; children: React.ReactNode }) =>
  useNarrow() ? (
    <details className="fold">
      <summary>{title}</summary>
      {children}
    </details>
  ) : (
    children
  );
