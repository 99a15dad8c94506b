import type { Athlete } from '@gravek/contract/athlete';
import type { ReviewLine } from '@gravek/contract/watched';
import { faultOf } from '@gravek/library/movement/byCode';
import { useEffect, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';
import { api, ApiProblem } from '../api/client';
import { useAthletes, useFilms } from '../api/queries';
import { dayName } from '../controls/dates';
import { FileButton } from '../controls/FileButton';
import { Empty, Loaded } from '../controls/Notice';
import { PageHead } from '../controls/PageHead';
import { Progress } from '../controls/Progress';
import { useMayPlan } from '../member/member';
import { needDocuments } from '../parts/catalogue/documents';
import { useCatalogue } from '../parts/catalogue/useCatalogue';
import { dropFilm, keptFilms } from '../phone/keptFilms';
import { Begin } from './BeginFilm';
import { type Clip, FilmProblem, readClip, SHIPPED, shippedFilm } from './clip';
import { useClipUrl } from './useFilmFile';

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
  const listedIds = new Set(listed.map(({ id }) => id));
  for (const id of await keptFilms()) {
    if (listedIds.has(id)) continue;
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
