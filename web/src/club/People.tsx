import { type Club, type Member, type Role, ROLES } from '@gravek/contract/club';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Link } from 'react-router';
import { api } from '../api/client';
import { useInvitations, useMembers, useWrite } from '../api/queries';
import { Loaded } from '../controls/Notice';
import { useMember } from '../member/member';
import { Invite, Invited, OnceLinkFor, tried } from './Invitations';

/** Whether owners need a code besides the password. */
const OwnersStep = ({ isRequired }: { isRequired: boolean }) => {
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
      checked={isRequired}
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
      {isOwner && <OwnersStep isRequired={club.ownersTwoSteps} />}
    </section>
  );
};
