import Button from 'react-bootstrap/Button';
import { useAt } from './fields';

/** A short list inside something: rows that are added and taken out. */
export const Rows = <T,>({
  at,
  add,
  fresh,
  children,
}: {
  at: string;
  add: string;
  fresh: (list: readonly T[]) => T;
  children: (path: string) => React.ReactNode;
}) => {
  const { value: list = [], message, set } = useAt<T[] | undefined>(at);
  return (
    <>
      {list.map((_, i) => (
        <div key={i} className="edit-row">
          {children(`${at}[${i}]`)}
          <Button
            size="sm"
            variant="link"
            aria-label={`Take out row ${i + 1}`}
            onClick={() => set(list.filter((__, other) => other !== i))}
          >
            Take out
          </Button>
        </div>
      ))}
      {message && (
        <div className="field-message" role="alert">
          {message}
        </div>
      )}
      <Button
        size="sm"
        variant="outline-dark"
        className="align-self-start"
        onClick={() => set([...list, fresh(list)])}
      >
        {add}
      </Button>
    </>
  );
};
