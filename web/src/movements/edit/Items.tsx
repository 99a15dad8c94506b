import { ArrowDown, ArrowUp } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { tell } from '../../controls/toasts';
import { useAt } from '../../parts/fields/fields';
import { useWork } from './work';

/** How many things are wrong at or under a path. */
const wrongUnder = (problems: Readonly<Record<string, string>>, path: string): number =>
  Object.keys(problems).filter(
    (key) => key === path || key.startsWith(`${path}.`) || key.startsWith(`${path}[`),
  ).length;

/** A number of things to mend, as a mark. */
export const Wrong = ({ under }: { under: readonly string[] }) => {
  const { problems } = useWork();
  const count = under.reduce((sum, path) => sum + wrongUnder(problems, path), 0);
  return count > 0 ? <span className="wrong-count">{count} to mend</span> : null;
};

/** A list of a movement's things: choose one to change it, move it, take it out, add one. */
export const Items = <T,>({
  at,
  noun,
  nameOf,
  fresh,
  children,
  begin = 0,
}: {
  at: string;
  /** what one of them is called */
  noun: string;
  nameOf: (item: T) => string;
  fresh: (list: readonly T[]) => T;
  children: (path: string) => React.ReactNode;
  begin?: number;
}) => {
  const { value: list = [], message, set } = useAt<T[] | undefined>(at);
  const [open, setOpen] = useState(begin);
  const at0 = Math.min(open, list.length - 1);
  const move = (from: number, by: -1 | 1): void => {
    const next = [...list];
    const [item] = next.splice(from, 1);
    next.splice(from + by, 0, item!);
    set(next);
    setOpen(from + by);
  };
  return (
    <div className="edit-items">
      <div>
        <ol className="edit-list">
          {list.map((item, i) => (
            <li key={i}>
              <button
                type="button"
                className="edit-item"
                aria-pressed={i === at0}
                onClick={() => setOpen(i)}
              >
                {nameOf(item) || `(no name)`} <Wrong under={[`${at}[${i}]`]} />
              </button>
              <button
                type="button"
                className="edit-move"
                aria-label={`Move ${nameOf(item)} up`}
                disabled={i === 0}
                onClick={() => move(i, -1)}
              >
                <ArrowUp size={15} aria-hidden />
              </button>
              <button
                type="button"
                className="edit-move"
                aria-label={`Move ${nameOf(item)} down`}
                disabled={i === list.length - 1}
                onClick={() => move(i, 1)}
              >
                <ArrowDown size={15} aria-hidden />
              </button>
            </li>
          ))}
        </ol>
        {message && (
          <div className="field-message" role="alert">
            {message}
          </div>
        )}
        <Button
          size="sm"
          variant="outline-dark"
          className="mt-2"
          onClick={() => {
            set([...list, fresh(list)]);
            setOpen(list.length);
          }}
        >
          Add a {noun}
        </Button>
      </div>
      {list.length === 0 ? (
        <p className="quiet">None yet.</p>
      ) : (
        <div key={at0} className="stack">
          {children(`${at}[${at0}]`)}
          <Button
            size="sm"
            variant="link"
            className="align-self-start p-0"
            onClick={() => {
              set(list.filter((_, i) => i !== at0));
              tell(`${nameOf(list[at0]!)} is taken out; Undo brings it back.`);
            }}
          >
            Take this {noun} out
          </Button>
        </div>
      )}
    </div>
  );
};
