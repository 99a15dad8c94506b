import { counted } from '@gravek/core/words';
import type { Athlete } from '@gravek/contract/athlete';
import type { Review } from '@gravek/contract/watched';
import { BUILT_IN } from '@gravek/library/movement/builtIn';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { useNavigate } from 'react-router';
import { v7 as uuid } from 'uuid';
import { api, sentenceOf } from '../api/client';
import { useApproaches, useWrite } from '../api/queries';
import { Field } from '../controls/Field';
import { tell } from '../controls/toasts';
import { useMember } from '../member/member';
import { useCatalogue } from '../parts/catalogue/useCatalogue';
import { keepFilm } from '../phone/keptFilms';
import type { Clip } from './clip';

/** Whom the film shows, and which plan it is held against. */
export const Begin = ({
  clip,
  file,
  athletes,
  onDrop,
}: {
  clip: Clip;
  file: Blob;
  athletes: readonly Athlete[];
  onDrop: () => void;
}) => {
  const navigate = useNavigate();
  const { today } = useMember();
  const { clubMovements: clubs } = useCatalogue();
  const movements = [
    ...BUILT_IN,
    ...clubs.filter((club) => !club.archived).map(({ movement }) => movement),
  ];
  const plans = useApproaches().data ?? [];
  const [id] = useState(() => uuid());
  const [athleteId, setAthleteId] = useState('');
  const [chosenPlan, setHeld] = useState('');
  const [takenOn, setTakenOn] = useState(today);
  const [problem, setProblem] = useState<string | null>(null);
  const write = useWrite((body: object) => api.post<Review>('/reviews', body), 'films');
  const athletePlans = plans.filter(
    (plan) => !plan.archived && plan.athleteIds.includes(athleteId),
  );
  const begin = async (): Promise<void> => {
    const plan = plans.find((plan) => plan.id === chosenPlan);
    if (!athleteId) setProblem('Say whom the film shows.');
    else if (!chosenPlan) setProblem('Say what is run in it.');
    else {
      try {
        const kept = await keepFilm(id, file);
        await write.mutateAsync({
          id,
          athleteId,
          movement: plan?.movement ?? chosenPlan,
          approachId: plan?.id ?? null,
          side: 'own',
          takenOn,
          note: '',
          film: clip.mark,
          view: null,
          lineM: null,
          firstStep: null,
          contacts: [],
          poses: [],
          ticks: [],
          checks: [],
          faults: [],
        });
        if (!kept)
          tell(
            'This device has no room to keep the film; choose it again when you come back to it.',
          );
        await navigate(`/film/${id}`);
      } catch (error) {
        setProblem(sentenceOf(error));
      }
    }
  };
  return (
    <section className="panel stack" aria-label="What the film shows">
      <div>
        <strong>{clip.mark.name}</strong>{' '}
        <span className="quiet">
          {clip.mark.durationS.toFixed(1)} s, {counted(clip.mark.frames, 'frame')},{' '}
          {clip.mark.width} × {clip.mark.height}. It stays on this device.
        </span>
      </div>
      <div className="film-fields">
        <Field label="Whom does it show?">
          <Form.Select
            value={athleteId}
            onChange={(event) => {
              setAthleteId(event.target.value);
              setHeld('');
            }}
          >
            <option value="">Choose an athlete</option>
            {athletes
              .filter((athlete) => !athlete.archived)
              .map((athlete) => (
                <option key={athlete.id} value={athlete.id}>
                  {athlete.name}
                </option>
              ))}
          </Form.Select>
        </Field>
        <Field label="Held against">
          <Form.Select value={chosenPlan} onChange={(event) => setHeld(event.target.value)}>
            <option value="">Choose a plan or movement</option>
            {athletePlans.length > 0 && (
              <optgroup label="Own plans">
                {athletePlans.map((plan) => (
                  <option key={plan.id} value={plan.id}>
                    {plan.name}
                  </option>
                ))}
              </optgroup>
            )}
            <optgroup label="A movement as it comes">
              {movements.map((movement) => (
                <option key={movement.code} value={movement.code}>
                  {movement.name}
                </option>
              ))}
            </optgroup>
          </Form.Select>
        </Field>
        <Field label="Filmed on">
          <Form.Control
            type="date"
            value={takenOn}
            max={today}
            onChange={(event) => setTakenOn(event.target.value)}
          />
        </Field>
      </div>
      {problem && (
        <div className="note note-wrong" role="alert">
          {problem}
        </div>
      )}
      <div className="row-line">
        <Button disabled={write.isPending} onClick={() => void begin()}>
          Look at it
        </Button>
        <Button variant="outline-dark" onClick={onDrop}>
          Another film
        </Button>
      </div>
    </section>
  );
};
