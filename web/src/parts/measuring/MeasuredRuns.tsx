import { type FigurePart, formatLength, type LengthStyle, speedParts } from '@gravek/core/units';
import type { Athlete } from '@gravek/contract/athlete';
import type { MeasuredBy } from '@gravek/contract/drillSet';
import type { MeasuredRep } from '@gravek/contract/session';
import {
  measuredMeans,
  type MeasuredPer,
  type MeasuredRow,
} from '@gravek/library/measuring/measuredRows';
import { sideWord } from '@gravek/library/movement/sides';
import { useState } from 'react';
import { useMeasured } from '../../api/queries';
import { dayName } from '../../controls/dates';
import { Length } from '../../controls/Figure';
import { Loaded } from '../../controls/Notice';
import { chartUnit, MeasuredChart, type MeasuredWhat } from '../../drawing/MeasuredChart';
import { useCatalogue } from '../catalogue/useCatalogue';

const BY: Record<MeasuredBy, string> = {
  film: 'film',
  pod: 'pod',
  phone: 'phone',
  taps: 'taps',
  sound: 'microphone',
  gates: 'gates',
};

const HEADS: Record<MeasuredPer, string> = {
  step: 'Step',
  second: 'Second',
  minute: 'Minute',
  gate: 'Up to',
};

const UNITS: Record<MeasuredPer, string> = {
  step: 'steps',
  second: 's',
  minute: 'min',
  gate: '',
};

const signed = (figure: number): string =>
  `${figure > 0 ? '+' : figure < 0 ? '−' : ''}${Math.abs(figure)}`;

const Off = ({ seen, planned }: { seen: number | null; planned: number | null }) =>
  seen === null || planned === null || planned === 0 ? (
    <>–</>
  ) : (
    <>{signed(Math.round((100 * (seen - planned)) / planned))} %</>
  );

/** What each row of a run was beside what was planned there. */
const Table = ({
  per,
  rows,
  what,
  style,
}: {
  per: MeasuredPer;
  rows: readonly MeasuredRow[];
  what: MeasuredWhat;
  style: LengthStyle;
}) => {
  const cell = (value: number | null) =>
    value === null ? (
      '–'
    ) : what === 'M' ? (
      <Length m={value} style={style} />
    ) : what === 'Spm' ? (
      value.toFixed(0)
    ) : (
      speedParts(value, style.unit, 2).figure
    );
  return (
    <div className="table-scroll measured-rows" tabIndex={0} role="group" aria-label="Row by row">
      <table className="grid-table small-text">
        <thead>
          <tr>
            <th>{HEADS[per]}</th>
            <th className="num">Planned</th>
            <th className="num">Run</th>
            <th className="num">Off</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row, i) => (
            <tr key={i}>
              <td>
                {per === 'gate' ? formatLength(row.at, { unit: style.unit }) : Math.round(row.at)}
              </td>
              <td className="num">{cell(row[`planned${what}`])}</td>
              <td className="num">{cell(row[`seen${what}`])}</td>
              <td className="num">
                <Off seen={row[`seen${what}`]} planned={row[`planned${what}`]} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
};

const WHATS: Record<MeasuredWhat, string> = {
  Spm: 'Cadence',
  Mps: 'Speed',
  M: 'Length of step',
};

const Run = ({
  run,
  name,
  side,
  style,
}: {
  run: MeasuredRep;
  name: string;
  /** in words, where it was not the usual one */
  side: string | null;
  style: LengthStyle;
}) => {
  const [open, setOpen] = useState(false);
  const { per, rows, cadence, speed, length, inBand, compared } = measuredMeans(run.measured);
  const { by, simulated } = run.measured;
  const main = cadence ?? speed;
  const part = (figure: number): FigurePart =>
    cadence ? { figure: figure.toFixed(0), unit: 'steps/min' } : speedParts(figure, style.unit);
  const whats: MeasuredWhat[] = [
    ...(length ? ['M' as const] : []),
    ...(cadence ? ['Spm' as const] : []),
    ...(!length && speed ? ['Mps' as const] : []),
  ];
  return (
    <li>
      <details onToggle={(event) => setOpen(event.currentTarget.open)}>
        <summary>
          <span className="measured-head">
            <span className="d-flex justify-content-between gap-2">
              {name}
              {main && (
                <span>
                  <strong>{part(main.seen).figure}</strong>{' '}
                  <span className="small-text quiet">{part(main.seen).unit}</span>
                </span>
              )}
            </span>
            <span className="quiet small-text d-block">
              {dayName(run.date)}, set {run.set}, rep {run.rep}
              {side && `, ${side}`}, by {BY[by]}{' '}
              {simulated && <span className="tag tag-estimate">made up</span>}
            </span>
            {main && main.planned !== null && (
              <span className="quiet small-text d-block">
                planned {part(main.planned).figure}
                {compared > 0 && `, ${inBand} of ${compared} ${UNITS[per]} in the band`}
              </span>
            )}
          </span>
        </summary>
        {open &&
          whats.map((what) => (
            <div key={what} className="mt-1">
              <div className="figure-label">
                {WHATS[what]}, {chartUnit(what, style.unit)}
              </div>
              {rows.length > 1 && (
                <MeasuredChart per={per} rows={rows} what={what} unit={style.unit} />
              )}
              <Table per={per} rows={rows} what={what} style={style} />
            </div>
          ))}
      </details>
    </li>
  );
};

/** Reps that a film or a device has measured, each beside its plan; nothing where there are none. */
export const MeasuredRuns = ({ athlete, style }: { athlete: Athlete; style: LengthStyle }) => {
  const measured = useMeasured(athlete.id);
  const catalogue = useCatalogue();
  return (
    <section className="panel" aria-label="Measured reps">
      <h2>Measured reps</h2>
      <Loaded query={measured} what="Getting what was measured …">
        {({ items }) =>
          items.length === 0 ? (
            <p className="quiet mb-0">
              None yet. A pod, the phone, taps, the microphone or gates measure a rep on the field
              screen; a film does afterwards.
            </p>
          ) : (
            <ul className="list-plain">
              {items.map((run) => (
                <Run
                  key={run.id}
                  run={run}
                  name={catalogue.nameOf(run.movement)}
                  side={
                    run.side === 'other'
                      ? sideWord(catalogue.of(run.movement), athlete, 'other')
                      : null
                  }
                  style={style}
                />
              ))}
            </ul>
          )
        }
      </Loaded>
    </section>
  );
};
