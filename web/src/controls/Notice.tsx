import { Suspense, useDeferredValue } from 'react';
import Button from 'react-bootstrap/Button';
import Spinner from 'react-bootstrap/Spinner';
import { Renewed, sentenceOf } from '../api/client';

/** What to do when there is nothing yet. */
export const Empty = ({ title, children }: { title: string; children?: React.ReactNode }) => (
  <div className="empty">
    <strong>{title}</strong>
    {children}
  </div>
);

export const Waiting = ({ what }: { what: string }) => (
  <div className="empty" role="status">
    <Spinner animation="border" size="sm" className="me-2" />
    {what}
  </div>
);

export const Failed = ({ error, again }: { error: unknown; again?: () => void }) => {
  const isOld = error instanceof Renewed;
  const act = isOld ? () => window.location.reload() : again;
  return (
    <div className="note note-wrong" role="alert">
      {sentenceOf(error)}{' '}
      {act && (
        <Button variant="link" className="p-0 align-baseline" onClick={act}>
          {isOld ? 'Reload' : 'Try again'}
        </Button>
      )}
    </div>
  );
};

const Shown = <T,>({ data, children }: { data: T; children: (data: T) => React.ReactNode }) =>
  children(data);

type Asked<T> = { data: T | undefined; error: unknown; refetch: () => unknown };

/** Several queries as a single one that has its data when all have. */
export const together = <T extends readonly unknown[]>(
  ...queries: { [I in keyof T]: Asked<T[I]> }
): Asked<T> => ({
  data: queries.every(({ data }) => data !== undefined)
    ? (queries.map(({ data }) => data) as unknown as T)
    : undefined,
  error: queries.find(({ data, error }) => data === undefined && error)?.error ?? null,
  refetch: () => queries.map(({ data, refetch }) => data === undefined && refetch()),
});

/**
 * Shows a query's data, or its waiting or failing. What is drawn of it may wait for more, such as the
 * document of a movement: nothing around it goes away meanwhile.
 *
 * @param meanwhile what is shown while it waits, where more than that it waits is known
 */
export const Loaded = <T,>({
  query,
  what,
  meanwhile = <Waiting what={what} />,
  children,
}: {
  query: Asked<T>;
  what: string;
  meanwhile?: React.ReactNode;
  children: (data: T) => React.ReactNode;
}) => {
  // What has come is drawn a little at a time, so that the page answers a touch meanwhile.
  const begun = useDeferredValue(query.data !== undefined);
  if (query.data !== undefined && begun) {
    return (
      <Suspense fallback={meanwhile}>
        <Shown data={query.data}>{children}</Shown>
      </Suspense>
    );
  }
  if (query.error) return <Failed error={query.error} again={() => void query.refetch()} />;
  return meanwhile;
};
