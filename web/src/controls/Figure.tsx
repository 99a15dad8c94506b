import {
  lengthParts,
  speedParts,
  type FigurePart,
  type LengthStyle,
  type LengthUnit,
} from '@gravek/core/units';

/** Feet and inches carry their marks at the size of the figure, as everybody writes them. */
const PRIMES = new Set(['′', '″']);

type Props = { parts: readonly FigurePart[]; big?: boolean };

/** A number with its unit set small. */
export const Figure = ({ parts, big = false }: Props) => (
  <span className={big ? 'figure figure-big' : 'figure'}>
    {parts.map(({ figure, unit }, i) => (
      <span key={i}>
        {figure}
        {PRIMES.has(unit) ? `${unit} ` : unit && <span className="unit">{unit}</span>}
      </span>
    ))}
  </span>
);

export const Length = ({
  m,
  style,
  big = false,
}: {
  m: number;
  style: LengthStyle;
  big?: boolean;
}) => <Figure parts={lengthParts(m, style)} big={big} />;

export const Speed = ({
  mps,
  unit,
  big = false,
}: {
  mps: number;
  unit: LengthUnit;
  big?: boolean;
}) => <Figure parts={[speedParts(mps, unit)]} big={big} />;

/** A figure under its label, as the head of a page has them. */
export const Labelled = ({ label, children }: { label: string; children: React.ReactNode }) => (
  <div>
    <div className="figure-label">{label}</div>
    <div>{children}</div>
  </div>
);
