import type { Movement } from '@gravek/contract/movement';
import type { ClubMovement } from '@gravek/contract/movementSchema';
import Button from 'react-bootstrap/Button';
import { Link, useNavigate } from 'react-router';
import { api, onPress, sentenceOf } from '../api/client';
import { useWrite } from '../api/queries';
import { download, fileName } from '../controls/download';
import { tell } from '../controls/toasts';
import { usePutAway } from '../controls/usePutAway';
import { useMayPlan } from '../member/member';
import { documentOf } from '../parts/catalogue/documents';
import { useAddMovement } from '../parts/catalogue/useOwnMovement';

/** A built-in movement has changed since it was copied: offered, never forced. */
export const UpdateOffer = ({ clubMovement }: { clubMovement: ClubMovement }) => {
  const builtIn = clubMovement.basedOn && documentOf(clubMovement.basedOn.code, []);
  const write = useWrite(
    (body: object) => api.put<ClubMovement>(`/movements/${clubMovement.id}`, body),
    'movements',
  );
  if (!builtIn || !clubMovement.basedOn || builtIn.revision <= clubMovement.basedOn.revision)
    return null;
  const basedOn = { code: builtIn.code, revision: builtIn.revision };
  const settle = async (movement: Movement, said: string): Promise<void> => {
    try {
      const before = clubMovement.movement;
      const stored = await write.mutateAsync({ basedOn, movement, version: clubMovement.version });
      tell(said, () => {
        void write
          .mutateAsync({ basedOn: clubMovement.basedOn, movement: before, version: stored.version })
          .catch((error: unknown) => tell(sentenceOf(error)));
      });
    } catch (error) {
      tell(sentenceOf(error));
    }
  };
  return (
    <div className="note" role="status">
      The built-in <Link to={`/movements/${builtIn.code}`}>{builtIn.name}</Link> has changed since
      this copy was made.{' '}
      <Button
        size="sm"
        variant="outline-dark"
        disabled={write.isPending}
        onClick={() =>
          void settle(
            { ...builtIn, code: clubMovement.id, name: clubMovement.movement.name },
            'The built-in content is taken over.',
          )
        }
      >
        Take it over
      </Button>{' '}
      <Button
        size="sm"
        variant="outline-dark"
        disabled={write.isPending}
        onClick={() => void settle(clubMovement.movement, 'Yours stays as it is.')}
      >
        Keep ours
      </Button>
    </div>
  );
};

export const Acts = ({
  movement,
  clubMovement,
}: {
  movement: Movement;
  clubMovement: ClubMovement | undefined;
}) => {
  const mayPlan = useMayPlan();
  const navigate = useNavigate();
  const { add, busy } = useAddMovement();
  const putAway = usePutAway('movements');
  const copy = async (): Promise<void> => {
    try {
      const stored = await add(movement, `${movement.name}, ours`.slice(0, 60));
      tell(
        `${movement.name} is copied; the ${clubMovement ? 'other' : 'built-in'} one stays as it is.`,
      );
      void navigate(`/movements/${stored.id}/edit`);
    } catch (error) {
      tell(sentenceOf(error));
    }
  };
  const save = async (): Promise<void> => {
    try {
      const { movementFileText } = await onPress(() => import('./file'));
      download(fileName(movement.name, 'json'), movementFileText(movement), 'application/json');
    } catch (error) {
      tell(sentenceOf(error));
    }
  };
  return (
    <>
      {mayPlan && clubMovement && !clubMovement.archived && (
        <>
          <Button
            variant="link"
            onClick={() =>
              void putAway(`/movements/${clubMovement.id}`, `${movement.name} is put away.`).then(
                (done) => done && navigate('/movements'),
              )
            }
          >
            Put away
          </Button>
          <Link className="btn btn-outline-dark" to={`/movements/${clubMovement.id}/edit`}>
            Change
          </Link>
        </>
      )}
      {mayPlan && clubMovement?.archived && (
        <Button
          variant="outline-dark"
          onClick={() =>
            void putAway(`/movements/${clubMovement.id}`, `${movement.name} is back.`, false)
          }
        >
          Bring back
        </Button>
      )}
      <Button variant="outline-dark" onClick={() => window.print()}>
        Print
      </Button>
      <Button variant="outline-dark" onClick={() => void save()}>
        Save as a file
      </Button>
      {mayPlan && (
        <Button variant="outline-dark" disabled={busy} onClick={() => void copy()}>
          {busy ? 'Copying …' : 'Copy and change'}
        </Button>
      )}
    </>
  );
};
