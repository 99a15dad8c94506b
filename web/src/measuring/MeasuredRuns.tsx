import type { LengthStyle } from '@gravek/core';
import type { Athlete, MeasuredBy, MeasuredRep } from '@gravek/contract';
import { measuredMeans, type MeasuredPer, type MeasuredRow } from '@gravek/library';
import { useState } from 'react';
import { useMeasured } from '../api/queries';
import { dayName } from '../controls/dates';
import { Length } from '../controls/Figure';
import { Loaded } from '../controls/Notice';
import { MeasuredChart, type MeasuredWhat } from '../drawing/MeasuredChart';
import { useCatalogue } from '../movements/useCatalogue';

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

const Off = ({ seen, planned }: { seen: number | null; planned: number | null }) =>
  seen === null || planned === null || planned === 0 ? (
    <>–</>
  ) : (
    <>
      {seen >= planned ? '+' : '−'}
      {Math.abs((100 * (seen - planned)) / planned).toFixed(0)} %
    </>
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
    ) : (
      value.toFixed(what === 'Spm' ? 0 : 2)
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
              <td>{per === 'gate' ? `${Number(row.at.toFixed(1))} m` : Math.round(row.at)}</td>
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
  Spm: 'Cadence, steps a minute',
  Mps: 'Speed, metres a second',
  M: 'Length of step',
};

const Run = ({ run, name, style }: { run: MeasuredRep; name: string; style: LengthStyle }) => {
  const [open, setOpen] = useState(false);
  const { per, rows, cadence, speed, length, inBand, compared } = measuredMeans(run.measured);
  const { by, simulated } = run.measured;
  const [main, unit, digits] = cadence
    ? ([cadence, 'steps/min', 0] as const)
    : ([speed, 'm/s', 1] as const);
  const whats: MeasuredWhat[] = [
    ...(length ? ['M' as const] : []),
    ...(cadence ? ['Spm' as const] : []),
    ...(!length && speed ? ['Mps' as const] : []),
  ];
  return (
    <li>
      <details onToggle={(event) => setOpen(event.currentTarget.open)}>
        <summary>
          <span className="row-line d-inline-flex measured-head">
            <span>
              {name}
              <span className="quiet small-text d-block">
                {dayName(run.date)}, set {run.set}, rep {run.rep}
                {run.side === 'other' && ', other side'}, by {BY[by]}{' '}
                {simulated && <span className="tag tag-estimate">made up</span>}
              </span>
            </span>
            <span className="ms-auto text-end">
              {main && (
                <>
                  <strong>{main.seen.toFixed(digits)}</strong>{' '}
                  <span className="small-text quiet">{unit}</span>
                  {main.planned !== null && (
                    <span className="quiet small-text d-block">
                      planned {main.planned.toFixed(digits)}
                      {compared > 0 && `, ${inBand} of ${compared} ${UNITS[per]} in the band`}
                    </span>
                  )}
                </>
              )}
            </span>
          </span>
        </summary>
        {open &&
          whats.map((what) => (
            <div key={what} className="mt-1">
              <div className="figure-label">{WHATS[what]}</div>
              {rows.length > 1 && <MeasuredChart per={per} rows={rows} what={what} />}
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
                <Run key={run.id} run={run} name={catalogue.of(run.movement).name} style={style} />
              ))}
            </ul>
          )
        }
      </Loaded>
    </section>
  );
};
