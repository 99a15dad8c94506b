import type { Choices } from '@gravek/contract/approach';
import type { Athlete } from '@gravek/contract/athlete';
import type { Movement } from '@gravek/contract/movement';
import type { Review } from '@gravek/contract/watched';
import { plainPlan } from '@gravek/library/film/reviewed';
import { useMemo } from 'react';
import Button from 'react-bootstrap/Button';
import { Link, useNavigate, useParams } from 'react-router';
import { useApproach, useAthlete, useFilm } from '../api/queries';
import { Conflict, DraftBack } from '../controls/Conflict';
import { dayName } from '../controls/dates';
import { FileButton } from '../controls/FileButton';
import { Loaded } from '../controls/Notice';
import { useTitle } from '../controls/useTitle';
import { PageHead } from '../controls/PageHead';
import { Progress } from '../controls/Progress';
import { UndoRedo } from '../controls/UndoRedo';
import { usePutAway } from '../controls/usePutAway';
import { useMayPlan } from '../member/member';
import { useCatalogue } from '../parts/catalogue/useCatalogue';
import { Desk } from './Desk';
import { useFilmFile } from './useFilmFile';
import { useReview } from './useReview';

const WithFilm = ({
  saved,
  athlete,
  movement,
  choices,
  planName,
}: {
  saved: Review;
  athlete: Athlete;
  movement: Movement;
  choices: Choices;
  planName: string | null;
}) => {
  const navigate = useNavigate();
  const review = useReview(saved);
  const mayPlan = useMayPlan();
  const putAway = usePutAway('films');
  const { state, read } = useFilmFile(saved);
  const name = athlete.name;
  useTitle(`Film of ${name}, ${planName ?? movement.name}`);
  return (
    <>
      <PageHead
        title={
          <>
            <Link to={`/athletes/${athlete.id}`}>{name}</Link>, {planName ?? movement.name}
          </>
        }
        over={
          <>
            <Link to="/film">Film</Link> {dayName(saved.takenOn)}
          </>
        }
      >
        <UndoRedo {...review.history} />
        {mayPlan && (
          <>
            <Button
              variant="outline-dark"
              onClick={() =>
                void putAway(`/reviews/${saved.id}`, `The film of ${name} was put away.`).then(
                  (done) => done && navigate('/film'),
                )
              }
            >
              Put away
            </Button>
            <Button disabled={!review.changed || review.busy} onClick={() => void review.save()}>
              Save the marks
            </Button>
          </>
        )}
      </PageHead>
      {review.found && review.changed && <DraftBack onDrop={review.drop} />}
      <Conflict {...review.conflict.shown} />
      {state.is === 'reading' && <Progress name="Reading the film" part={state.part} />}
      {state.is === 'missing' && (
        <div className="empty">
          <strong>{saved.film.name} is not on this device.</strong>
          Its marks are saved, the film itself never leaves the device on which it was opened.
          {state.why && (
            <div className="note note-wrong" role="alert">
              {state.why}
            </div>
          )}
          <div>
            <FileButton
              className="btn-primary mt-2"
              accept="video/*,.mkv"
              onFile={(file) => void read(file)}
            >
              Choose the film again
            </FileButton>
          </div>
        </div>
      )}
      {state.is === 'there' && (
        <Desk
          clip={state.clip}
          review={review}
          movement={movement}
          choices={choices}
          athlete={athlete}
        />
      )}
    </>
  );
};

const Known = ({ saved }: { saved: Review }) => {
  const athlete = useAthlete(saved.athleteId);
  const plan = useApproach(saved.approachId ?? undefined);
  const catalogue = useCatalogue();
  const movement = catalogue.of(saved.movement);
  const choices = useMemo(() => plan.data?.choices ?? plainPlan(movement), [plan.data, movement]);
  if (saved.approachId !== null && plan.data === undefined) {
    return (
      <Loaded query={plan} what="Looking for the plan …">
        {() => null}
      </Loaded>
    );
  }
  return (
    <Loaded query={athlete} what="Looking for the athlete …">
      {(person) => (
        <WithFilm
          saved={saved}
          athlete={person}
          movement={movement}
          choices={choices}
          planName={plan.data?.name ?? null}
        />
      )}
    </Loaded>
  );
};

/** One film held against a plan: looked at, marked, measured, and what comes of it. */
export const FilmDesk = () => {
  const { id = '' } = useParams();
  const film = useFilm(id);
  return (
    <Loaded query={film} what="Looking for the film …">
      {(saved) => <Known key={saved.id} saved={saved} />}
    </Loaded>
  );
};
