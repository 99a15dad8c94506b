import type { Ground } from '@gravek/contract/ground';
import type { SessionInput } from '@gravek/contract/session';
import Form from 'react-bootstrap/Form';
import { Field } from '../controls/Field';
import { Where } from './Where';

type About = Pick<SessionInput, 'date' | 'title' | 'groundId' | 'place'>;

/** The day, name and place of a session. */
export const AboutSession = ({
  about,
  grounds,
  messages,
  onAbout,
}: {
  about: About;
  grounds: Ground[];
  messages: Readonly<Record<string, string>>;
  onAbout: (change: Partial<About>) => void;
}) => (
  <div className="set-fields about-session">
    <Field label="Day" message={messages.date}>
      <Form.Control
        type="date"
        value={about.date}
        onChange={(event) => onAbout({ date: event.target.value })}
      />
    </Field>
    <div className="wide">
      <Field label="Name" message={messages.title}>
        <Form.Control
          value={about.title}
          onChange={(event) => onAbout({ title: event.target.value })}
        />
      </Field>
    </div>
    <Where
      grounds={grounds}
      groundId={about.groundId}
      place={about.place}
      messages={messages}
      onWhere={onAbout}
    />
  </div>
);
