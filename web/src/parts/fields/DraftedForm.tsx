import type { Checked } from '@gravek/contract/problem';
import { useState, type ReactNode } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { get } from 'react-hook-form';
import { fieldsOf } from '../../api/client';
import { Conflict, DraftBack, useConflict } from '../../controls/Conflict';
import { useDraft } from '../../controls/draft';
import { AskWindow } from '../../controls/Window';
import { useLengthStyle } from '../../member/member';
import { changesOf, FieldsContext, messagesOf, type FormFields, type TypedTexts } from './fields';

type Draft<T> = {
  value: T;
  /** of what is stored and these are put over; null before it was first saved */
  version: number | null;
  /** what stands in fields and cannot be read, by field */
  typed: TypedTexts;
};

export type DraftedForm<T, Stored = unknown> = {
  value: T;
  /** several fields at once; a text that cannot be read goes with the value that it stood for */
  set: (value: T) => void;
  fields: FormFields;
  /** another has saved first, or it was refused; a draft is back */
  head: ReactNode;
  busy: boolean;
  /** what is stored then; null where something is wrong with it, which is shown */
  submit: () => Promise<Stored | null>;
  /** begins again from what is stored */
  restart: (stored: Stored | null) => void;
  /** puts what is here over another version than the one that it was begun from */
  putOver: (version: number) => void;
};

/**
 * A form whose fields are found by their paths: kept as a draft until it is saved, checked as the server checks
 * it, refused at the fields that are wrong. Of two who save the same, the second is shown what is there.
 *
 * @param asks `name` of the draft; `stored` as it was saved, null for something new; `valueOf` what is changed of
 *   it; `older` from a draft as it was once kept; `check` gives what is sent of it; `send` with the version that it is put over; `onSaved` with what is stored then; `onWrong` with what is wrong, by field
 */
export const useDraftedForm = <
  T extends object,
  Stored extends { version: number },
  Sent = T,
>(asks: {
  name: string;
  stored: Stored | null;
  valueOf: (stored: Stored | null) => T;
  /** from a draft of before forms kept what could not be read */
  older: (kept: object) => T;
  check: (value: T) => Checked<unknown> | Promise<Checked<unknown>>;
  send: (checked: Sent, version: number | null) => Promise<Stored>;
  onSaved: (stored: Stored) => void;
  onWrong?: (fields: Record<string, string>) => void;
}): DraftedForm<T, Stored> => {
  const style = useLengthStyle();
  const draftOf = (stored: Stored | null): Draft<T> => ({
    value: asks.valueOf(stored),
    version: stored?.version ?? null,
    typed: {},
  });
  const [begin] = useState(() => draftOf(asks.stored));
  const [kept, setDraft, discard, found] = useDraft<Draft<T> | object>(asks.name, begin);
  const draft =
    'value' in kept
      ? (kept as Draft<T>)
      : {
          ...begin,
          ...('version' in kept && { version: kept.version as number | null }),
          value: asks.older(kept),
        };
  const { value, typed, version } = draft;
  const [refused, setRefused] = useState<Record<string, string>>({});
  /** it was tried, and what is wrong can be said at once */
  const [isLive, setLive] = useState(false);
  const [busy, setBusy] = useState(false);
  const conflict = useConflict<Stored>(
    (theirs) => discard(draftOf(theirs)),
    (over) => setDraft({ ...draft, version: over }),
  );
  const submit = async (): Promise<Stored | null> => {
    conflict.clear();
    try {
      const looked = asks.check(value);
      const checked = await looked;
      const found = { ...(checked.ok ? {} : checked.fields), ...messagesOf(typed) };
      // What needs no waiting for is looked at again with each change.
      setLive('ok' in looked);
      setRefused('ok' in looked ? {} : found);
      if (!checked.ok || Object.keys(found).length > 0) {
        asks.onWrong?.(found);
        conflict.say('Mend the fields that are marked, then save.');
        return null;
      }
      setBusy(true);
      const stored = await asks.send(checked.value as Sent, version);
      discard(draftOf(stored));
      asks.onSaved(stored);
      return stored;
    } catch (error) {
      const fields = fieldsOf(error);
      setRefused(fields);
      asks.onWrong?.(fields);
      conflict.show(error);
      return null;
    } finally {
      setBusy(false);
    }
  };
  // Once it was tried, what is mended is said no more, and what goes wrong is.
  const looked = isLive ? asks.check(value) : null;
  const wrong = looked && 'ok' in looked && !looked.ok ? looked.fields : {};
  return {
    value,
    set: (next) => {
      const stays = ([path]: [string, unknown]): boolean => get(next, path) === get(value, path);
      const texts = Object.fromEntries(Object.entries(typed).filter(stays));
      setDraft({ ...draft, value: next, typed: texts });
    },
    fields: {
      ...changesOf(value, typed, (next, texts) =>
        setDraft({ ...draft, value: next, typed: texts }),
      ),
      ...{ problems: { ...refused, ...wrong, ...messagesOf(typed) }, style, body: null },
    },
    head: (
      <>
        <Conflict {...conflict.shown} />
        {found && <DraftBack onDrop={() => discard(draftOf(asks.stored))} />}
      </>
    ),
    busy,
    submit,
    restart: (stored) => discard(draftOf(stored)),
    putOver: (over) => setDraft({ ...draft, version: over }),
  };
};

type FormProps = {
  form: Pick<DraftedForm<never>, 'fields' | 'head' | 'busy' | 'submit'>;
  onClose: () => void;
  children: ReactNode;
};

/** A drafted form in its place on the page. */
export const FormHere = ({
  form,
  onClose,
  label,
  act = 'Save',
  children,
}: FormProps & { label: string; act?: string }) => (
  <FieldsContext value={form.fields}>
    <Form
      noValidate
      className="stack mt-2"
      style={{ gap: 10 }}
      aria-label={label}
      onSubmit={(event) => {
        event.preventDefault();
        void form.submit();
      }}
    >
      {form.head}
      {children}
      <div className="row-line">
        <Button type="submit" size="sm" disabled={form.busy}>
          {form.busy ? 'Saving …' : act}
        </Button>
        <Button size="sm" variant="outline-dark" onClick={onClose}>
          Close
        </Button>
      </div>
    </Form>
  </FieldsContext>
);

/** A drafted form in a window of its own. */
export const FormWindow = ({ form, onClose, title, children }: FormProps & { title: string }) => (
  <FieldsContext value={form.fields}>
    <AskWindow
      title={title}
      act={form.busy ? 'Saving …' : 'Save'}
      disabled={form.busy}
      onClose={onClose}
      onSubmit={() => void form.submit()}
    >
      {form.head}
      {children}
    </AskWindow>
  </FieldsContext>
);
