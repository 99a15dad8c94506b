import {
  type Invitation,
  type InvitationInput,
  invitationInput,
  type OnceLink,
} from '@gravek/contract/account';
import { type Role, ROLES } from '@gravek/contract/club';
import { format } from 'date-fns';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { v7 as uuid } from 'uuid';
import { api, sentenceOf } from '../api/client';
import { useWrite } from '../api/queries';
import { Conflict } from '../controls/Conflict';
import { Field } from '../controls/Field';
import { useCheckedForm } from '../controls/form';
import { tell } from '../controls/toasts';

export const Invite = ({ onDone }: { onDone: (id: string | null) => void }) => {
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
export const OnceLinkFor = ({
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

export const tried = (work: Promise<unknown>): void =>
  void work.catch((error: unknown) => tell(sentenceOf(error)));

/** Who was invited and has not come yet. */
export const Invited = ({
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

export const ROLE_NAMES: Record<Role, string> = {
  owner: 'owner: everything',
  coach: 'coach: plans, people, sessions',
  assistant: 'assistant: runs sessions, logs reps',
};
