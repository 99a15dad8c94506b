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

/** Shows a query's data, or its waiting or failing. */
export const Loaded = <T,>({
  query,
  what,
  children,
}: {
  query: { data: T | undefined; error: unknown; refetch: () => unknown };
  what: string;
  children: (data: T) => React.ReactNode;
}) => {
  if (query.data !== undefined) return children(query.data);
  if (query.error) return <Failed error={query.error} again={() => void query.refetch()} />;
  return <Waiting what={what} />;
};
