import type { Session } from '@gravek/contract/session';
import Form from 'react-bootstrap/Form';
import { useTemplates } from '../api/queries';
import { counted } from '../controls/dates';

/** Sessions that are kept to begin others from; nothing where there are none. */
export const BeginFrom = ({ onBegin }: { onBegin: (template: Session) => void }) => {
  const templates = useTemplates().data ?? [];
  if (templates.length === 0) return null;
  return (
    <Form.Select
      aria-label="Begin from a template"
      className="begin-from"
      value=""
      onChange={(event) => {
        const template = templates.find((one) => one.id === event.target.value);
        if (template) onBegin(template);
      }}
    >
      <option value="">Begin from a template …</option>
      {templates.map((one) => (
        <option key={one.id} value={one.id}>
          {one.title}, {counted(one.drillSets.length, 'set')}
        </option>
      ))}
    </Form.Select>
  );
};
