/** What is said of a turn besides: who is not in it and why, and what to take care of. */
export const Notes = ({
  away,
  cautions,
}: {
  away: ReadonlyMap<string, string>;
  cautions: readonly string[];
}) => (
  <>
    {[...away].map(([id, why]) => (
      <div key={id} className="note small-text" role="status">
        {why}
      </div>
    ))}
    {cautions.length > 0 && <div className="caution small-text">{cautions.join(' ')}</div>}
  </>
);
