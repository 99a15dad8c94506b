import { otherFoot } from '@gravek/core/feet';
import type { Reviewed } from '@gravek/library/film/reviewed';
import { reactionIn } from '@gravek/library/film/watched';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Field } from '../controls/Field';
import { FootWord } from '../drawing/FootPrint';
import type { Marks } from './useReview';
import type { Playback } from './useClip';
import { milliseconds } from './words';

/** Contacts as they were marked: one key each as frames pass, the foot alternating by itself. */
export const ContactsPanel = ({
  marks,
  reviewed,
  playback,
  frameOf,
  onLand,
  onLeave,
  onChange,
}: {
  marks: Marks;
  reviewed: Reviewed;
  playback: Playback;
  frameOf: (atS: number) => number;
  onLand: () => void;
  onLeave: () => void;
  onChange: (part: Partial<Marks>) => void;
}) => {
  const { contacts, callS } = marks;
  const reactionS = callS === null ? null : reactionIn(contacts, callS, reviewed.firstStep);
  const swap = (from: number): void =>
    onChange({
      contacts: contacts.map((contact, i) =>
        i >= from ? { ...contact, foot: otherFoot(contact.foot) } : contact,
      ),
    });
  return (
    <div className="stack">
      <p className="note mb-0">
        On the frame at which a foot is first down, press its toe in the film, or <kbd>C</kbd> with
        the pointer on it; on the frame at which it is first up again, <kbd>O</kbd>.
      </p>
      <div className="row-line">
        <Button variant="outline-dark" size="sm" onClick={onLand}>
          Foot lands (C)
        </Button>
        <Button variant="outline-dark" size="sm" disabled={contacts.length === 0} onClick={onLeave}>
          Foot leaves (O)
        </Button>
        <Button
          variant="outline-dark"
          size="sm"
          onClick={() => onChange({ callS: playback.timeS })}
        >
          Called here (K)
        </Button>
      </div>
      {callS !== null && (
        <div className="row-line small-text">
          <span>
            Called at {callS.toFixed(2)} s
            {reactionS === null
              ? '; no foot lands after it yet'
              : `; the first foot lands ${reactionS.toFixed(2)} s later`}
            .
          </span>
          <Button
            variant="link"
            size="sm"
            className="p-0"
            onClick={() => onChange({ callS: null })}
          >
            Remove the call
          </Button>
        </div>
      )}
      {reviewed.odd.map((text) => (
        <p key={text} className="note note-wrong mb-0">
          {text}
        </p>
      ))}
      {contacts.length > 0 && (
        <div className="table-scroll film-list">
          <table className="grid-table small-text">
            <caption className="visually-hidden">Contacts</caption>
            <thead>
              <tr>
                <th>Contact</th>
                <th>Foot</th>
                <th className="num">Lands</th>
                <th className="num">On the ground</th>
                <td />
              </tr>
            </thead>
            <tbody>
              {contacts.map(({ foot, on, off }, i) => (
                <tr key={on.atS + foot}>
                  <td>
                    <Button
                      variant="link"
                      size="sm"
                      className="p-0"
                      aria-label={`Show contact ${i + 1}`}
                      onClick={() => playback.go(frameOf(on.atS))}
                    >
                      {i + 1}
                    </Button>
                  </td>
                  <td>
                    <button
                      type="button"
                      className="film-swap"
                      title="The other foot, from here on"
                      aria-label={`Contact ${i + 1}: ${foot}. Change feet from here on`}
                      onClick={() => swap(i)}
                    >
                      <FootWord foot={foot} />
                    </button>
                  </td>
                  <td className="num">{on.atS.toFixed(3)} s</td>
                  <td className="num">{off ? milliseconds(off.atS - on.atS) : '–'}</td>
                  <td>
                    <Button
                      variant="link"
                      size="sm"
                      className="p-0"
                      aria-label={`Remove contact ${i + 1}`}
                      onClick={() => onChange({ contacts: contacts.filter((_, k) => k !== i) })}
                    >
                      Remove
                    </Button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      {reviewed.seen && reviewed.plan.length > 0 && (
        <Field label="The first contact is">
          <Form.Select
            size="sm"
            value={marks.firstStep === null ? '' : String(marks.firstStep)}
            onChange={(event) =>
              onChange({ firstStep: event.target.value === '' ? null : Number(event.target.value) })
            }
          >
            <option value="">
              {reviewed.firstStep === 0
                ? 'the foot at the start (found)'
                : `step ${reviewed.firstStep} of the plan (found)`}
            </option>
            <option value="0">the foot at the start</option>
            {reviewed.plan.map(({ n, foot, phase }, i) => (
              <option key={`${phase}${n}`} value={i + 1}>
                step {n}, {foot}
              </option>
            ))}
          </Form.Select>
        </Field>
      )}
    </div>
  );
};
