import Button from 'react-bootstrap/Button';
import { usePutAway } from '../controls/usePutAway';
import { useMayPlan } from '../member/member';

/** A row of something that the club keeps: changed in place, put away and brought back. */
export const OwnRow = ({
  one,
  path,
  touched,
  tag,
  onChange,
  children,
}: {
  one: { id: string; name: string; archived: boolean };
  /** of the resource, under /api */
  path: string;
  /** list to ask for anew */
  touched: string;
  /** said beside the name as long as it is not put away */
  tag?: string;
  onChange: () => void;
  children: React.ReactNode;
}) => {
  const mayPlan = useMayPlan();
  const putAway = usePutAway(touched);
  return (
    <li>
      <div className="row-line">
        <strong className={one.archived ? 'quiet' : undefined}>{one.name}</strong>
        {one.archived ? (
          <span className="tag">put away</span>
        ) : (
          tag && <span className="tag">{tag}</span>
        )}
        {mayPlan && (
          <span className="ms-auto">
            {!one.archived && (
              <Button size="sm" variant="link" onClick={onChange}>
                Change
              </Button>
            )}
            <Button
              size="sm"
              variant="link"
              onClick={() =>
                void putAway(
                  `${path}/${one.id}`,
                  one.archived ? `${one.name} is back.` : `${one.name} is put away.`,
                  !one.archived,
                )
              }
            >
              {one.archived ? 'Bring back' : 'Put away'}
            </Button>
          </span>
        )}
      </div>
      {children}
    </li>
  );
};
