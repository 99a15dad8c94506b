import { CUE_SCHOOLS, type CueSchool } from '@gravek/core/chooseCue';
import {
  clubUpdate,
  memberInput,
  ROLES,
  type Club as ClubRow,
  type Member,
  type MemberInput,
  type PasswordLink,
  type Role,
} from '@gravek/contract/club';
import { format } from 'date-fns';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { v7 as uuid } from 'uuid';
import { api, sentenceOf } from '../api/client';
import { useMembers, useWrite } from '../api/queries';
import { useMember } from '../member/member';
import { useSettings } from '../member/settings';
import { UNIT_NAMES, UNITS } from '../member/unitNames';
import { PageHead } from '../controls/PageHead';
import { Field } from '../controls/Field';
import { Conflict } from '../controls/Conflict';
import { useCheckedForm } from '../controls/form';
import { Loaded } from '../controls/Notice';
import { tell } from '../controls/toasts';
import { Account } from './Account';
import { Archive } from './Archive';
import { Grounds } from './Grounds';
import { Limits } from './Limits';
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

const ROLE_NAMES: Record<Role, string> = {
  owner: 'owner: everything',
  coach: 'coach: plans, people, sessions',
  assistant: 'assistant: runs sessions, logs reps',
};

const zones = (own: string): string[] => [
  ...new Set([own, 'UTC', ...Intl.supportedValuesOf('timeZone')]),
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

const AddMember = ({ onDone }: { onDone: () => void }) => {
  const add = useWrite((body: MemberInput) => api.post<Member[]>('/members', body), 'club');
  const { register, errors, busy, over, onSubmit } = useCheckedForm<MemberInput>(
    memberInput,
    { defaultValues: { id: uuid(), person: '', email: '', role: 'assistant', password: '' } },
    async (values) => {
      const all = await add.mutateAsync(values);
      const person = all.find(({ id }) => id === values.id)?.person ?? values.person;
      tell(`${person} can sign in now.`);
      onDone();
    },
  );
  return (
    <Form noValidate className="stack mt-3" onSubmit={onSubmit}>
      <Conflict problem={over} />
      <Field label="Name" message={errors.person?.message}>
        <Form.Control {...register('person')} />
      </Field>
      <Field label="E-mail" message={errors.email?.message}>
        <Form.Control type="email" autoComplete="off" {...register('email')} />
      </Field>
      <Field label="Role" message={errors.role?.message}>
        <Form.Select {...register('role')}>
          {ROLES.map((role) => (
            <option key={role} value={role}>
              {ROLE_NAMES[role]}
            </option>
          ))}
        </Form.Select>
      </Field>
      <Field
        label="First password"
        message={errors.password?.message}
        hint="At least 10 characters; tell it in person. Who has an account at another club keeps its password."
      >
        <Form.Control type="password" autoComplete="new-password" {...register('password')} />
      </Field>
      <div className="row-line">
        <Button type="submit" disabled={busy}>
          Add
        </Button>
        <Button variant="outline-dark" onClick={onDone}>
          Close
        </Button>
      </div>
    </Form>
  );
};

/** A link by which somebody who has forgotten the password makes a new one. */
const LinkFor = ({ member, onDone }: { member: Member; onDone: () => void }) => {
  const [link, setLink] = useState<PasswordLink | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const make = async (): Promise<void> => {
    try {
      setProblem(null);
      setLink(await api.post<PasswordLink>(`/members/${member.id}/link`));
    } catch (error) {
      setProblem(sentenceOf(error));
    }
  };
  const address = link && `${window.location.origin}/new-password#${link.token}`;
  return (
    <div className="stack mt-2" style={{ gap: 8 }}>
      <Conflict problem={problem} />
      {address ? (
        <Field
          label={`For ${member.person} only`}
          hint={`Opens once, until ${format(new Date(link.until), 'EEEE HH:mm')}. It is shown only now.`}
        >
          <Form.Control
            readOnly
            value={address}
            onFocus={(event) => event.currentTarget.select()}
          />
        </Field>
      ) : (
        <p className="small-text quiet mb-0">
          A link that opens once within a day, and lets {member.person} choose a new password. Links
          made before hold no more.
        </p>
      )}
      <div className="row-line">
        {address ? (
          <Button
            size="sm"
            onClick={() =>
              void navigator.clipboard.writeText(address).then(
                () => tell('The link is copied.'),
                () => tell('It could not be copied; select it and copy it by hand.'),
              )
            }
          >
            Copy
          </Button>
        ) : (
          <Button size="sm" onClick={() => void make()}>
            Make the link
          </Button>
        )}
        <Button size="sm" variant="outline-dark" onClick={onDone}>
          Close
        </Button>
      </div>
    </div>
  );
};

const People = () => {
  const { role } = useMember();
  const members = useMembers();
  const [adding, setAdding] = useState(false);
  const [linking, setLinking] = useState<string | null>(null);
  const change = useWrite(
    ({ id, role: next }: { id: string; role: Role }) => api.put(`/members/${id}`, { role: next }),
    'club',
    'me',
  );
  const remove = useWrite((id: string) => api.remove(`/members/${id}`), 'club');
  const tried = (work: Promise<unknown>): void =>
    void work.catch((error: unknown) => tell(sentenceOf(error)));
  return (
    <section className="panel" aria-label="People">
      <h2>People</h2>
      <Loaded query={members} what="Getting the people …">
        {(list) => (
          <ul className="list-plain">
            {list.map((one) => (
              <li key={one.id}>
                <div className="row-line">
                  <div>
                    <strong>{one.person}</strong>
                    {one.you && <span className="quiet"> (you)</span>}
                    <div className="quiet small-text">{one.email}</div>
                  </div>
                  <span className="ms-auto row-line">
                    {role === 'owner' ? (
                      <>
                        <Form.Select
                          size="sm"
                          style={{ width: 'auto' }}
                          aria-label={`Role of ${one.person}`}
                          value={one.role}
                          onChange={(event) =>
                            tried(
                              change.mutateAsync({ id: one.id, role: event.target.value as Role }),
                            )
                          }
                        >
                          {ROLES.map((option) => (
                            <option key={option}>{option}</option>
                          ))}
                        </Form.Select>
                        {!one.you && (
                          <Button size="sm" variant="link" onClick={() => setLinking(one.id)}>
                            New password
                          </Button>
                        )}
                        {!one.you && (
                          <Button
                            size="sm"
                            variant="link"
                            onClick={() => {
                              if (
                                window.confirm(
                                  `${one.person} can then no longer sign in to this club. Go on?`,
                                )
                              ) {
                                tried(remove.mutateAsync(one.id));
                              }
                            }}
                          >
                            Remove
                          </Button>
                        )}
                      </>
                    ) : (
                      one.role
                    )}
                  </span>
                </div>
                {linking === one.id && <LinkFor member={one} onDone={() => setLinking(null)} />}
              </li>
            ))}
          </ul>
        )}
      </Loaded>
      {role === 'owner' &&
        (adding ? (
          <AddMember onDone={() => setAdding(false)} />
        ) : (
          <Button variant="outline-dark" className="mt-2" onClick={() => setAdding(true)}>
            Add somebody
          </Button>
        ))}
    </section>
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
