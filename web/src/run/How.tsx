import { useState } from 'react';

/** How the drill goes, in a line; pressed, all of it lies over what is above and moves nothing. */
export const How = ({ how }: { how: string }) => {
  const [isOpen, setOpen] = useState(false);
  if (!how) return null;
  return (
    <div className="run-how">
      <button
        type="button"
        className="small-text"
        aria-expanded={isOpen}
        onClick={() => setOpen(!isOpen)}
      >
        {how}
      </button>
      {isOpen && <p className="small-text mb-0">{how}</p>}
    </div>
  );
};
