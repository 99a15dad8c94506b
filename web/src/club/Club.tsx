import { CUE_SCHOOLS, type CueSchool } from '@gravek/core/cue/chooseCue';
import { clubUpdate, type Club as ClubRow } from '@gravek/contract/club';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { api } from '../api/client';
import { useWrite } from '../api/queries';
import { useMember } from '../member/member';
import { useSettings } from '../member/settings';
import { UNIT_NAMES, UNITS } from '../member/unitNames';
import { PageHead } from '../controls/PageHead';
import { Field } from '../controls/Field';
import { Conflict } from '../controls/Conflict';
import { useCheckedForm } from '../controls/form';
import { tell } from '../controls/toasts';
import { Account } from './Account';
import { Archive } from './Archive';
import { Grounds } from './Grounds';
import { Limits } from './Limits';
import { People } from './People';
import { RuleSets } from './RuleSets';

const SCHOOLS: Record<CueSchool, { name: string; reason: string }> = {
  'root-cause': {
    name: 'root cause',
    reason: 'Cue the fault that brings about the others; they fade with it.',
  },
  'first-phase': {
    name: 'first phase',
    reason: 'Cue the earliest fault; what comes later rests on it.',
  },
  'most-frequent': {
    name: 'most frequent',
    reason: 'Cue what shows most, weighed by how grave it is.',
  },
};

const zones = (usedZone: string): string[] => [
  ...new Set([usedZone, 'UTC', ...Intl.supportedValuesOf('timeZone')]),
];

const Settings = ({ club }: { club: ClubRow }) => {
  const { role } = useMember();
  const save = useWrite((body: ClubRow) => api.put<ClubRow>('/club', body), 'me');
  const { register, watch, errors, busy, over, onSubmit } = useCheckedForm<ClubRow>(
    clubUpdate,
    { values: club, resetOptions: { keepDirtyValues: true } },
    async (values) => {
      await save.mutateAsync({ ...values, version: club.version });
      tell('The club is saved.');
    },
  );
  return (
    <Form noValidate className="panel stack" onSubmit={onSubmit}>
      <h2 className="mb-0">For everybody in the club</h2>
      <Conflict problem={over} />
      <fieldset disabled={role !== 'owner'} className="stack">
        <Field label="Name" message={errors.name?.message}>
          <Form.Control {...register('name')} />
        </Field>
        <Field label="Lengths in" message={errors.unit?.message}>
          <Form.Select {...register('unit')}>
            {UNITS.map((unit) => (
              <option key={unit} value={unit}>
                {UNIT_NAMES[unit]}
              </option>
            ))}
          </Form.Select>
        </Field>
        <Field
          label="Which fault gets the one cue"
          message={errors.cueSchool?.message}
          hint={SCHOOLS[watch('cueSchool')].reason}
        >
          <Form.Select {...register('cueSchool')}>
            {CUE_SCHOOLS.map((school) => (
              <option key={school} value={school}>
                {SCHOOLS[school].name}
              </option>
            ))}
          </Form.Select>
        </Field>
        <Field label="Time zone" message={errors.timeZone?.message}>
          <Form.Select {...register('timeZone')}>
            {zones(club.timeZone).map((zone) => (
              <option key={zone}>{zone}</option>
            ))}
          </Form.Select>
        </Field>
        <Button type="submit" className="align-self-start" disabled={busy}>
          Save
        </Button>
      </fieldset>
    </Form>
  );
};

const Device = ({ club }: { club: ClubRow }) => {
  const { unit, setUnit, sun, toggleSun } = useSettings();
  return (
    <section className="panel stack" aria-label="On this device">
      <h2 className="mb-0">On this device</h2>
      <Field label="Lengths in">
        <Form.Select
          value={unit ?? ''}
          onChange={(event) => setUnit(UNITS.find((unit) => unit === event.target.value) ?? null)}
        >
          <option value="">as the club: {UNIT_NAMES[club.unit].toLowerCase()}</option>
          {UNITS.map((unit) => (
            <option key={unit} value={unit}>
              {UNIT_NAMES[unit]}
            </option>
          ))}
        </Form.Select>
      </Field>
      <Form.Check
        type="switch"
        id="sun"
        label="Sun look: black on white, heavy lines"
        checked={sun}
        onChange={toggleSun}
      />
    </section>
  );
};

export const Club = () => {
  const { club } = useMember();
  return (
    <>
      <PageHead over="Club" title={club.name} />
      <div className="columns">
        <div className="stack">
          <Settings club={club} />
          <Grounds />
          <Limits club={club} />
        </div>
        <div className="stack">
          <Account />
          <Device club={club} />
          <People />
          <RuleSets />
          <Archive />
        </div>
      </div>
    </>
  );
};
