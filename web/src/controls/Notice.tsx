import { Suspense, useDeferredValue } from 'react';
import Button from 'react-bootstrap/Button';
import Spinner from 'react-bootstrap/Spinner';
import { sentenceOf } from '../api/client';

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

export const Failed = ({ error, again }: { error: unknown; again?: () => void }) => (
  <div className="note note-wrong" role="alert">
    {sentenceOf(error)}{' '}
    {again && (
      <Button variant="link" className="p-0 align-baseline" onClick={again}>
        Try again
      </Button>
    )}
  </div>
);

const Shown = <T,>({ data, children }: { data: T; children: (data: T) => React.ReactNode }) =>
  children(data);

/**
 * Shows a query's data, or its waiting or failing. What is drawn of it may wait for more, such as the
 * document of a movement: nothing around it goes away meanwhile.
 */
export const Loaded = <T,>({
  query,
  what,
  children,
}: {
  query: { data: T | undefined; error: unknown; refetch: () => unknown };
  what: string;
  children: (data: T) => React.ReactNode;
}) => {
  // What has come is drawn a little at a time, so that the page answers a touch meanwhile.
  const begun = useDeferredValue(query.data !== undefined);
  if (query.data !== undefined && begun) {
    return (
      <Suspense fallback={<Waiting what={what} />}>
        <Shown data={query.data}>{children}</Shown>
      </Suspense>
    );
  }
  if (query.error) return <Failed error={query.error} again={() => void query.refetch()} />;
  return <Waiting what={what} />;
};
