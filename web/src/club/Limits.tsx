import { LOAD_KINDS } from '@gravek/core/session/repLog';
import { clubUpdate, type Club, type LoadLimit } from '@gravek/contract/club';
import { check } from '@gravek/contract/problem';
import Button from 'react-bootstrap/Button';
import { api } from '../api/client';
import { useWrite } from '../api/queries';
import { tell } from '../controls/toasts';
import { LOAD_NAMES } from '../parts/intoSession/Decide';
import { useMember } from '../member/member';
import { ChoiceAt, NumberAt } from '../parts/fields/At';
import { useDraftedForm } from '../parts/fields/DraftedForm';
import { FieldsContext } from '../parts/fields/fields';
import { Rows } from '../parts/fields/Rows';

const LOADS_NAMED = LOAD_KINDS.map(
  (kind) =>
    [kind, `${LOAD_NAMES[kind].toLowerCase()}${kind === 'sprintM' ? ', metres' : ''}`] as const,
);

const FRESH: LoadLimit = { kind: 'jumps', upToAge: 14, week: 60 };

/** What the club asks of somebody at most in a week, by age; the builder says where it is more. */
export const Limits = ({ club }: { club: Club }) => {
  const { role } = useMember();
  const write = useWrite((body: Club) => api.put<Club>('/club', body), 'me');
  const form = useDraftedForm<Pick<Club, 'limits'>, Club>({
    name: 'limits',
    stored: club,
    valueOf: (stored) => ({ limits: stored!.limits }),
    older: (kept) => ({ limits: (kept as Club).limits }),
    check: (value) => check(clubUpdate, { ...club, ...value }),
    send: (value, version) =>
      write.mutateAsync({ ...club, ...value, version: Math.max(version ?? 0, club.version) }),
    onSaved: () => tell('The limits are saved.'),
  });
  return (
    <section className="panel stack" aria-label="Limits of a week">
      <h2 className="mb-0">At most in a week</h2>
      {form.head}
      {form.value.limits.length === 0 && (
        <span className="quiet">
          No limits. Sessions are held against what is usual for each athlete.
        </span>
      )}
      <FieldsContext value={form.fields}>
        <fieldset disabled={role !== 'owner'} className="stack">
          <Rows<LoadLimit> at="limits" add="Add a limit" fresh={() => FRESH}>
            {(row) => (
              <div className="limit-row">
                <NumberAt at={`${row}.upToAge`} label="Up to the age of" decimals={0} />
                <ChoiceAt at={`${row}.kind`} label="What" options={LOADS_NAMED} />
                <NumberAt at={`${row}.week`} label="at most" decimals={0} />
              </div>
            )}
          </Rows>
          <Button
            className="align-self-start"
            disabled={form.busy}
            onClick={() => void form.submit()}
          >
            {form.busy ? 'Saving …' : 'Save limits'}
          </Button>
        </fieldset>
      </FieldsContext>
    </section>
  );
};
