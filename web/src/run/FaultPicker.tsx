import type { Fault } from '@gravek/contract/movement';
import { useState } from 'react';
import Form from 'react-bootstrap/Form';

const LIKELY = 3;

/** The faults that are within reach: the likeliest, or all that can show and are looked for. */
export const useFaultPicks = (faults: readonly Fault[]) => {
  const [isOpen, setOpen] = useState(false);
  const [query, setQuery] = useState('');
  const wanted = query.trim().toLowerCase();
  const found = faults.filter(({ name, sees, cue }) =>
    `${name} ${sees} ${cue}`.toLowerCase().includes(wanted),
  );
  return {
    shown: isOpen ? found : faults.slice(0, LIKELY),
    hasMore: faults.length > LIKELY,
    isOpen,
    query,
    setQuery,
    setOpen: (open: boolean): void => {
      setOpen(open);
      setQuery('');
    },
  };
};

export type FaultPicks = ReturnType<typeof useFaultPicks>;

/** Faults to tap, the likeliest first; Other opens all that this rep can show, with a search. */
export const FaultPicker = ({
  picks,
  marked,
  label = 'Faults seen',
  isLabelShown = false,
  onToggle,
}: {
  picks: FaultPicks;
  marked: readonly string[];
  label?: string;
  isLabelShown?: boolean;
  onToggle: (fault: string) => void;
}) => (
  <div className="fault-picker">
    {isLabelShown && <div className="small-text fw-bold">{label}</div>}
    {picks.isOpen && (
      <Form.Control
        type="search"
        aria-label="Search the faults"
        placeholder="Search what was seen"
        value={picks.query}
        onChange={(event) => picks.setQuery(event.target.value)}
      />
    )}
    <div className="faults" role="group" aria-label={label}>
      {picks.shown.map((fault) => (
        <button
          key={fault.code}
          type="button"
          className="fault"
          aria-pressed={marked.includes(fault.code)}
          onClick={() => onToggle(fault.code)}
        >
          {fault.name}
        </button>
      ))}
      {picks.hasMore && (
        <button
          type="button"
          className="fault"
          aria-expanded={picks.isOpen}
          onClick={() => picks.setOpen(!picks.isOpen)}
        >
          {picks.isOpen ? 'Fewer' : 'Other'}
        </button>
      )}
    </div>
    {picks.isOpen && picks.shown.length === 0 && (
      <div className="quiet small-text" role="status">
        No fault of this drill is called that.
      </div>
    )}
  </div>
);
