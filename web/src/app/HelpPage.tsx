import Modal from 'react-bootstrap/Modal';
import { useLocation } from 'react-router';
import { useHelp } from '../controls/help';
import { PageWindow } from '../controls/Window';
import { HELP } from './helpTexts';

const Rows = ({ title, rows }: { title: string; rows: readonly (readonly [string, string])[] }) =>
  rows.length > 0 && (
    <>
      <h3 className="mt-3">{title}</h3>
      <dl className="help-rows">
        {rows.map(([term, meaning]) => (
          <div key={term}>
            <dt>{term}</dt>
            <dd>{meaning}</dd>
          </div>
        ))}
      </dl>
    </>
  );

/** What the place that is open is for, what its figures mean, and its keys. */
export const HelpPage = () => {
  const { pathname } = useLocation();
  const { open, show } = useHelp();
  const text = HELP.find(([place]) => place.test(pathname))?.[1];
  if (!text) return null;
  return (
    <PageWindow title={text.name} show={open} onClose={() => show(false)} scrollable>
      <Modal.Body>
        <p className="lead-line mb-0">{text.question}</p>
        <Rows title="What the figures mean" rows={text.figures} />
        <Rows title="Keys" rows={[...text.keys, ['?', 'this page'], ['Esc', 'closes it']]} />
      </Modal.Body>
    </PageWindow>
  );
};
