import { counted } from '@gravek/core/words';
import type { ApproachSummary } from '@gravek/contract/plan';
import type { Session } from '@gravek/contract/session';
import Form from 'react-bootstrap/Form';
import { useTemplates } from '../api/queries';
import { useDocumentsHere } from '../parts/catalogue/documents';
import { codesOf } from './useWork';

const NONE: readonly Session[] = [];

/** Sessions that are kept to begin others from; nothing where there are none. */
export const BeginFrom = ({
  approaches,
  onBegin,
}: {
  approaches: readonly ApproachSummary[];
  onBegin: (template: Session) => void;
}) => {
  const found = useTemplates().data ?? NONE;
  const here = useDocumentsHere(
    codesOf(
      found.flatMap((session) => session.drillSets),
      approaches,
    ),
  );
  const templates = here ? found : NONE;
  if (templates.length === 0) return null;
  return (
    <Form.Select
      aria-label="Begin from a template"
      className="begin-from"
      value=""
      onChange={(event) => {
        const template = templates.find((template) => template.id === event.target.value);
        if (template) onBegin(template);
      }}
    >
      <option value="">Begin from a template …</option>
      {templates.map((template) => (
        <option key={template.id} value={template.id}>
          {template.title}, {counted(template.drillSets.length, 'set')}
        </option>
      ))}
    </Form.Select>
  );
};
