import type { Athlete } from '@gravek/contract/athlete';
import type { Review, ReviewLine } from '@gravek/contract/watched';
import { BUILT_IN } from '@gravek/library/movement/builtIn';
import { faultOf } from '@gravek/library/movement/byCode';
import { useEffect, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Progress } from '../controls/Progress';
import { Link, useNavigate } from 'react-router';
import { v7 as uuid } from 'uuid';
import { api, ApiProblem, sentenceOf } from '../api/client';
import { useApproaches, useAthletes, useFilms, useWrite } from '../api/queries';
import { dayName } from '../controls/dates';
import { counted } from '@gravek/core/words';
import { Field } from '../controls/Field';
import { FileButton } from '../controls/FileButton';
import { Empty, Loaded } from '../controls/Notice';
import { PageHead } from '../controls/PageHead';
import { needDocuments } from '../parts/catalogue/documents';
import { useCatalogue } from '../parts/catalogue/useCatalogue';
import { useMayPlan, useMember } from '../member/member';
import { dropFilm, keepFilm, keptFilms } from '../phone/store';
import { tell } from '../controls/toasts';
import { FilmProblem, readClip, shippedFilm, SHIPPED, type Clip } from './clip';
import { useClipUrl } from './useFilmFile';

/** Whom the film shows, and which plan it is held against. */
const Begin = ({
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
  const { own: clubs } = useCatalogue();
  const movements = [
    ...BUILT_IN,
    ...clubs.filter((club) => !club.archived).map(({ movement }) => movement),
  ];
  const plans = useApproaches().data ?? [];
  const [id] = useState(() => uuid());
  const [athleteId, setAthleteId] = useState('');
  const [held, setHeld] = useState('');
  const [takenOn, setTakenOn] = useState(today);
  const [problem, setProblem] = useState<string | null>(null);
  const write = useWrite((body: object) => api.post<Review>('/reviews', body), 'films');
  const own = plans.filter((plan) => !plan.archived && plan.athleteIds.includes(athleteId));
  const begin = async (): Promise<void> => {
    const plan = plans.find((plan) => plan.id === held);
    if (!athleteId) setProblem('Say whom the film shows.');
    else if (!held) setProblem('Say what is run in it.');
    else {
      try {
        const kept = await keepFilm(id, file);
        await write.mutateAsync({
          id,
          athleteId,
          movement: plan?.movement ?? held,
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
          <Form.Select value={held} onChange={(event) => setHeld(event.target.value)}>
            <option value="">Choose a plan or movement</option>
            {own.length > 0 && (
              <optgroup label="Own plans">
                {own.map((plan) => (
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

/** A film is chosen, read, and begun to be looked at. */
const Open = ({ athletes }: { athletes: readonly Athlete[] }) => {
  const [part, setPart] = useState<number | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [opened, setOpened] = useState<{ clip: Clip; file: Blob } | null>(null);
  useClipUrl(opened?.clip ?? null);
  const read = async (get: () => Promise<Blob>, name: string): Promise<void> => {
    setProblem(null);
    setPart(0);
    try {
      const file = await get();
      setOpened({ file, clip: await readClip(file, name, setPart) });
    } catch (error) {
      if (!(error instanceof FilmProblem)) throw error;
      setProblem(error.message);
    } finally {
      setPart(null);
    }
  };
  if (opened) {
    return <Begin {...opened} athletes={athletes} onDrop={() => setOpened(null)} />;
  }
  return (
    <div className="stack">
      <div className="row-line">
        <FileButton
          className="btn-primary"
          accept="video/*,.mkv"
          disabled={part !== null}
          onFile={(file) => void read(() => Promise.resolve(file), file.name)}
        >
          Open a film
        </FileButton>
        <Button
          variant="outline-dark"
          disabled={part !== null}
          onClick={() => void read(shippedFilm, SHIPPED.name)}
        >
          The film that ships
        </Button>
        <span className="quiet small-text">
          A film stays on this device; only what is marked in it is saved.
        </span>
      </div>
      {part !== null && <Progress name="Reading the film" part={part} />}
      {problem && (
        <div className="note note-wrong" role="alert">
          {problem}
        </div>
      )}
    </div>
  );
};

const Line = ({ film, athletes }: { film: ReviewLine; athletes: readonly Athlete[] }) => {
  const catalogue = useCatalogue();
  const movement = catalogue.of(film.movement);
  const faults = film.faults.map((code) => faultOf(movement, code)?.name ?? code);
  return (
    <tr>
      <td>
        <Link className="row-link" to={`/film/${film.id}`}>
          {athletes.find((athlete) => athlete.id === film.athleteId)?.name ?? 'An athlete'}
        </Link>
      </td>
      <td>{movement.name}</td>
      <td>{dayName(film.takenOn)}</td>
      <td className="num">{film.contacts}</td>
      <td>{faults.join(', ') || <span className="quiet">none said yet</span>}</td>
      <td className="quiet">{film.film}</td>
    </tr>
  );
};

/** A film of somebody who was deleted leaves the device too. */
const forgetDeleted = async (listed: readonly ReviewLine[]): Promise<void> => {
  const there = new Set(listed.map(({ id }) => id));
  for (const id of await keptFilms()) {
    if (there.has(id)) continue;
    try {
      // What was put away is not in the list, and may come back.
      await api.get(`/reviews/${id}`);
    } catch (error) {
      if (error instanceof ApiProblem && error.status === 404) await dropFilm(id);
    }
  }
};

/** Films that were held against plans, and the way to the next one. */
export const Films = () => {
  const films = useFilms();
  const athletes = useAthletes();
  const mayPlan = useMayPlan();
  useEffect(() => {
    if (films.data) void forgetDeleted(films.data);
  }, [films.data]);
  return (
    <>
      <PageHead title="Film" over="Where does a run differ from its plan?" />
      <Loaded query={athletes} what="Looking for the athletes …">
        {(people) => (
          <div className="stack">
            {mayPlan && <Open athletes={people} />}
            <Loaded query={films} what="Looking for films …">
              {(list) => {
                needDocuments(list.map((film) => film.movement));
                return list.length === 0 ? (
                  <Empty title="No film was looked at yet.">
                    Film a run from the side with some tape on the ground, and open it here.
                  </Empty>
                ) : (
                  <div className="table-scroll">
                    <table className="grid-table">
                      <caption className="visually-hidden">Films, newest first</caption>
                      <thead>
                        <tr>
                          <th>Athlete</th>
                          <th>Movement</th>
                          <th>Filmed</th>
                          <th className="num">Contacts</th>
                          <th>Shows</th>
                          <th>File</th>
                        </tr>
                      </thead>
                      <tbody>
                        {list.map((film) => (
                          <Line key={film.id} film={film} athletes={people} />
                        ))}
                      </tbody>
                    </table>
                  </div>
                );
              }}
            </Loaded>
          </div>
        )}
      </Loaded>
    </>
  );
};
