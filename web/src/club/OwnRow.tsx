import Button from 'react-bootstrap/Button';
import { usePutAway } from '../controls/usePutAway';
import { useMayPlan } from '../member/member';

/** A row of something that the club keeps: changed in place, put away and brought back. */
export const OwnRow = ({
  item,
  path,
  touched,
  tag,
  onChange,
  children,
}: {
  item: { id: string; name: string; archived: boolean };
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
        <strong className={item.archived ? 'quiet' : undefined}>{item.name}</strong>
        {item.archived ? (
          <span className="tag">put away</span>
        ) : (
          tag && <span className="tag">{tag}</span>
        )}
        {mayPlan && (
          <span className="ms-auto">
            {!item.archived && (
              <Button size="sm" variant="link" onClick={onChange}>
                Change
              </Button>
            )}
            <Button
              size="sm"
              variant="link"
              onClick={() =>
                void putAway(
                  `${path}/${item.id}`,
                  item.archived ? `${item.name} is back.` : `${item.name} is put away.`,
                  !item.archived,
                )
              }
            >
              {item.archived ? 'Bring back' : 'Put away'}
            </Button>
          </span>
        )}
      </div>
      {children}
    </li>
  );
};
