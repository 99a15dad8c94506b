import { useId, type ReactNode } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Modal from 'react-bootstrap/Modal';

type Props = {
  title: string;
  size?: 'lg' | 'xl';
  scrollable?: boolean;
  show?: boolean;
  onClose: () => void;
  children: ReactNode;
};

/** Something that opens over the page, under its title. */
export const PageWindow = ({ title, show = true, onClose, children, ...looks }: Props) => {
  const id = useId();
  return (
    <Modal show={show} onHide={onClose} aria-labelledby={id} {...looks}>
      <Modal.Header closeButton>
        <Modal.Title as="h2" id={id} className="h5 mb-0 text-reset">
          {title}
        </Modal.Title>
      </Modal.Header>
      {children}
    </Modal>
  );
};

/** A form over the page: what it asks, and under it how to leave and what it does. */
export const AskWindow = ({
  act,
  disabled = false,
  onSubmit,
  children,
  ...window
}: Props & { act: string; disabled?: boolean; onSubmit: () => void }) => (
  <PageWindow {...window}>
    <Form
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        onSubmit();
      }}
    >
      <Modal.Body className="stack">{children}</Modal.Body>
      <Modal.Footer>
        <Button variant="outline-dark" onClick={window.onClose}>
          Close
        </Button>
        <Button type="submit" disabled={disabled}>
          {act}
        </Button>
      </Modal.Footer>
    </Form>
  </PageWindow>
);
