import { Redo2, Undo2 } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import type { useHistory } from './history';

type History = Pick<
  ReturnType<typeof useHistory<unknown>>,
  'undo' | 'redo' | 'canUndo' | 'canRedo'
>;

export const UndoRedo = ({ undo, redo, canUndo, canRedo }: History) => (
  <span className="d-inline-flex gap-1 no-print">
    <Button
      variant="outline-dark"
      aria-label="Undo"
      title="Undo (Ctrl Z)"
      disabled={!canUndo}
      onClick={undo}
    >
      <Undo2 size={16} aria-hidden />
    </Button>
    <Button
      variant="outline-dark"
      aria-label="Redo"
      title="Redo (Ctrl Y)"
      disabled={!canRedo}
      onClick={redo}
    >
      <Redo2 size={16} aria-hidden />
    </Button>
  </span>
);
