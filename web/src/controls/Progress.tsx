import ProgressBar from 'react-bootstrap/ProgressBar';

/**
 * How much of something long is done.
 *
 * @param part 0 to 1; null where only that it goes on is known
 */
export const Progress = ({ name, part }: { name: string; part: number | null }) => (
  <div className="progress">
    <ProgressBar
      isChild
      now={part === null ? 100 : Math.round(part * 100)}
      animated={part === null}
      aria-label={name}
      {...(part === null ? { 'aria-valuetext': 'It goes on' } : {})}
    />
  </div>
);
