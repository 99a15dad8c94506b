import {
  invitationInput,
  type Invitation,
  type InvitationInput,
  type OnceLink,
} from '@gravek/contract/account';
import { ROLES, type Club, type Member, type Role } from '@gravek/contract/club';
import { format } from 'date-fns';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Link } from 'react-router';
import { v7 as uuid } from 'uuid';
import { api, sentenceOf } from '../api/client';
import { useInvitations, useMembers, useWrite } from '../api/queries';
import { useMember } from '../member/member';
import { Conflict } from '../controls/Conflict';
import { Field } from '../controls/Field';
import { useCheckedForm } from '../controls/form';
import { Loaded } from '../controls/Notice';
import { tell } from '../controls/toasts';

const ROLE_NAMES: Record<Role, string> = {
  owner: 'owner: everything',
  coach: 'coach: plans, people, sessions',
  assistant: 'assistant: runs sessions, logs reps',
};

const Invite = ({ onDone }: { onDone: (id: string | null) => void }) => {
  const add = useWrite(
    (body: InvitationInput) => api.post<Invitation[]>('/invitations', body),
    'club',
  );
  const { register, errors, busy, over, onSubmit } = useCheckedForm<InvitationInput>(
    invitationInput,
    { defaultValues: { id: uuid(), person: '', email: '', role: 'assistant' } },
    async (values) => {
      await add.mutateAsync(values);
      onDone(values.id);
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
      <Field
        label="Role"
        message={errors.role?.message}
        hint="You get a link to pass on. Whoever opens it chooses their own password."
      >
        <Form.Select {...register('role')}>
          {ROLES.map((role) => (
            <option key={role} value={role}>
              {ROLE_NAMES[role]}
            </option>
          ))}
        </Form.Select>
      </Field>
      <div className="row-line">
        <Button type="submit" disabled={busy}>
          Invite
        </Button>
        <Button variant="outline-dark" onClick={() => onDone(null)}>
          Close
        </Button>
      </div>
    </Form>
  );
};

/** A link that opens once, made with a press and shown only then. */
const OnceLinkFor = ({
  to,
  place,
  person,
  what,
  onDone,
}: {
  /** where the server makes it */
  to: string;
  /** where it leads */
  place: string;
  person: string;
  what: string;
  onDone: () => void;
}) => {
  const [link, setLink] = useState<OnceLink | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const make = useWrite(() => api.post<OnceLink>(to), 'club');
  const press = async (): Promise<void> => {
    try {
      setProblem(null);
      setLink(await make.mutateAsync(undefined));
    } catch (error) {
      setProblem(sentenceOf(error));
    }
  };
  const address = link && `${window.location.origin}${place}#${link.token}`;
  return (
    <div className="stack mt-2" style={{ gap: 8 }}>
      <Conflict problem={problem} />
      {address ? (
        <Field
          label={`For ${person} only`}
          hint={`Opens once, until ${format(new Date(link.until), 'EEEE d MMMM, HH:mm')}. It is shown only now.`}
        >
          <Form.Control
            readOnly
            value={address}
            onFocus={(event) => event.currentTarget.select()}
          />
        </Field>
      ) : (
        <p className="small-text quiet mb-0">{what}</p>
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
          <Button size="sm" disabled={make.isPending} onClick={() => void press()}>
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

const tried = (work: Promise<unknown>): void =>
  void work.catch((error: unknown) => tell(sentenceOf(error)));

/** Who was invited and has not come yet. */
const Invited = ({
  list,
  linking,
  onLink,
}: {
  list: Invitation[];
  linking: string | null;
  onLink: (id: string | null) => void;
}) => {
  const takeBack = useWrite((id: string) => api.remove(`/invitations/${id}`), 'club');
  if (list.length === 0) return null;
  return (
    <>
      <h3 className="figure-label mt-3 mb-1">Invited</h3>
      <ul className="list-plain">
        {list.map((invitation) => (
          <li key={invitation.id}>
            <div className="row-line">
              <div>
                <strong>{invitation.person}</strong>, {invitation.role}
                <div className="quiet small-text">{invitation.email}</div>
                <div className="quiet small-text">
                  {invitation.until
                    ? `The link works until ${format(new Date(invitation.until), 'EEEE d MMMM, HH:mm')}.`
                    : 'No link that works.'}
                </div>
              </div>
              <span className="ms-auto row-line">
                <Button size="sm" variant="link" onClick={() => onLink(invitation.id)}>
                  {invitation.until ? 'New link' : 'Make a link'}
                </Button>
                <Button
                  size="sm"
                  variant="link"
                  onClick={() => tried(takeBack.mutateAsync(invitation.id))}
                >
                  Take back
                </Button>
              </span>
            </div>
            {linking === invitation.id && (
              <OnceLinkFor
                to={`/invitations/${invitation.id}/link`}
                place="/invitation"
                person={invitation.person}
                what={`A link that opens once within a week. ${invitation.person} chooses a password by it, or joins with the account that they have. Links made before stop working.`}
                onDone={() => onLink(null)}
              />
            )}
          </li>
        ))}
      </ul>
    </>
  );
};

/** Whether owners need a code besides the password. */
const OwnersStep = ({ asked }: { asked: boolean }) => {
  const ask = useWrite(
    (next: boolean) => api.put<Club>('/club/two-steps', { asked: next }),
    'me',
    'club',
  );
  return (
    <Form.Check
      className="mt-3"
      type="switch"
      id="owners-step"
      label="Owners need a second step when they sign in"
      checked={asked}
      disabled={ask.isPending}
      onChange={(event) => tried(ask.mutateAsync(event.target.checked))}
    />
  );
};

/** Who belongs to the club, and who is invited. */
export const People = () => {
  const { role, club } = useMember();
  const isOwner = role === 'owner';
  const members = useMembers();
  const invitations = useInvitations(isOwner);
  const [adding, setAdding] = useState(false);
  const [linking, setLinking] = useState<string | null>(null);
  const change = useWrite(
    ({ id, role: next }: { id: string; role: Role }) => api.put(`/members/${id}`, { role: next }),
    'club',
    'me',
  );
  const remove = useWrite((id: string) => api.remove(`/members/${id}`), 'club');
  const removeAsked = (member: Member): void => {
    if (window.confirm(`${member.person} can then no longer sign in to this club. Go on?`))
      tried(remove.mutateAsync(member.id));
  };
  return (
    <section className="panel" aria-label="People">
      <h2>People</h2>
      <Loaded query={members} what="Getting the people …">
        {(list) => (
          <ul className="list-plain">
            {list.map((member) => (
              <li key={member.id}>
                <div className="row-line">
                  <div>
                    <strong>{member.person}</strong>
                    {member.you && <span className="quiet"> (you)</span>}
                    <div className="quiet small-text">{member.email}</div>
                  </div>
                  <span className="ms-auto row-line">
                    {isOwner ? (
                      <>
                        <Form.Select
                          size="sm"
                          style={{ width: 'auto' }}
                          aria-label={`Role of ${member.person}`}
                          value={member.role}
                          onChange={(event) =>
                            tried(
                              change.mutateAsync({
                                id: member.id,
                                role: event.target.value as Role,
                              }),
                            )
                          }
                        >
                          {ROLES.map((option) => (
                            <option key={option}>{option}</option>
                          ))}
                        </Form.Select>
                        {!member.you && (
                          <>
                            <Button size="sm" variant="link" onClick={() => setLinking(member.id)}>
                              New password
                            </Button>
                            <Button size="sm" variant="link" onClick={() => removeAsked(member)}>
                              Remove
                            </Button>
                          </>
                        )}
                      </>
                    ) : (
                      member.role
                    )}
                  </span>
                </div>
                {linking === member.id && (
                  <OnceLinkFor
                    to={`/members/${member.id}/link`}
                    place="/new-password"
                    person={member.person}
                    what={`A link that opens once within a day, and lets ${member.person} choose a new password. Links made before stop working.`}
                    onDone={() => setLinking(null)}
                  />
                )}
              </li>
            ))}
          </ul>
        )}
      </Loaded>
      {isOwner && (
        <Loaded query={invitations} what="Getting the invitations …">
          {(list) => <Invited list={list} linking={linking} onLink={setLinking} />}
        </Loaded>
      )}
      {isOwner &&
        (adding ? (
          <Invite
            onDone={(id) => {
              setAdding(false);
              if (id) setLinking(id);
            }}
          />
        ) : (
          <div className="row-line mt-2">
            <Button variant="outline-dark" onClick={() => setAdding(true)}>
              Invite somebody
            </Button>
            <Link className="ms-auto small-text" to="/club/log">
              Who did what
            </Link>
          </div>
        ))}
      {isOwner && <OwnersStep asked={club.ownersTwoSteps} />}
    </section>
  );
};
