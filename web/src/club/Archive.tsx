import { CSV_TABLES, type CsvTableName } from '@gravek/contract/club';
import Button from 'react-bootstrap/Button';
import { api, sentenceOf } from '../api/client';
import { useAthletes } from '../api/queries';
import { tell } from '../controls/toasts';
import { useMayPlan, useMember } from '../member/member';
import { Restore, useRestoring } from './Restore';

const TABLE_NAMES: Record<CsvTableName, string> = {
  reps: 'Reps',
  faults: 'Faults',
  results: 'Makes and seconds',
  measures: 'Measures',
  loads: 'Loads',
};

/** The file is sent by the server as it is made; the password may be asked for first. */
const takeOut = async (): Promise<void> => {
  try {
    await api.get('/confirmed');
  } catch (error) {
    tell(sentenceOf(error));
    return;
  }
  const link = document.createElement('a');
  link.href = '/api/archive';
  link.download = '';
  link.click();
};

/** The club out of Gravek: all of it for another Gravek, tables for a spreadsheet; and into an empty one. */
export const Archive = () => {
  const { role } = useMember();
  const mayPlan = useMayPlan();
  const athletes = useAthletes().data;
  const last = useRestoring(role === 'owner');
  if (!mayPlan) return null;
  return (
    <section className="panel stack" aria-label="Out and in">
      <h2 className="mb-0">Out and in</h2>
      {role === 'owner' && (
        <div>
          <Button variant="outline-dark" onClick={() => void takeOut()}>
            The whole club as one file
          </Button>
          <div className="quiet small-text mt-1">
            Everything but passwords and calendar addresses. It holds names and health notes: keep
            it as you keep those.
          </div>
        </div>
      )}
      <div>
        <div className="figure-label mb-1">For a spreadsheet, as CSV</div>
        <div className="row-line">
          {CSV_TABLES.map((table) => (
            <a
              key={table}
              className="btn btn-outline-dark btn-sm"
              href={`/api/csv/${table}`}
              download
            >
              {TABLE_NAMES[table]}
            </a>
          ))}
        </div>
      </div>
      {role === 'owner' && athletes?.length === 0 && <Restore last={last} />}
    </section>
  );
};
