import { useSearchParams } from 'react-router';

/** What is chosen on a page, kept in its address so that it can be sent on; empty is taken out of it. */
export const useAddress = () => {
  const [query, setQuery] = useSearchParams();
  const set = (key: string, value: string): void =>
    setQuery(
      (before) => {
        const next = new URLSearchParams(before);
        if (value) next.set(key, value);
        else next.delete(key);
        return next;
      },
      { replace: true },
    );
  return { query, set, clear: () => setQuery({}) };
};
