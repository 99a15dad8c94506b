import { useUncounted } from '../api/uncounted';

/** Says that figures of faults are about to change, since reps have come that they do not hold yet. */
export const Uncounted = () => {
  const rows = useUncounted((state) => state.rows);
  if (rows === 0) return null;
  return (
    <div className="note small-text" role="status">
      {rows === 1 ? 'One tap has' : `${rows} taps have`} just come in and will be counted in a
      moment.
    </div>
  );
};
