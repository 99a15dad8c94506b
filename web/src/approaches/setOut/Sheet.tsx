import type { StraightPlan } from '@gravek/core/runup/straightPlan';
import type { LengthStyle } from '@gravek/core/units';
import type { OnGround } from '@gravek/contract/ground';
import { fromLine } from '@gravek/library/planning/onGround';
import { type Datum, sheetRows } from '@gravek/library/planning/sheet';
import { memo, useState } from 'react';
import Form from 'react-bootstrap/Form';
import { onPress, sentenceOf } from '../../api/client';
import { download, fileName } from '../../controls/download';
import { Length } from '../../controls/Figure';
import { Menu } from '../../controls/Menu';
import { Segments } from '../../controls/Segments';
import { tell } from '../../controls/toasts';
import { FootWord } from '../../drawing/FootPrint';

/** Nearer than this to a line a mark is on it, metres. */
const ON_LINE_M = 0.01;

/** The same mark from the nearest line that is on the ground already. */
const FromLine = ({
  toTargetM,
  target,
  ground,
  style,
}: {
  toTargetM: number;
  target: string;
  ground: OnGround | null | undefined;
  style: LengthStyle;
}) => {
  const near = toTargetM > 0 ? fromLine(toTargetM, target, ground) : null;
  if (!near) return null;
  const { name, beforeM } = near;
  return (
    <span className="small-text quiet sheet-hint">
      {Math.abs(beforeM) < ON_LINE_M ? (
        `on the ${name}`
      ) : (
        <>
          <Length m={Math.abs(beforeM)} style={style} /> {beforeM > 0 ? 'behind' : 'in front of'}{' '}
          the {name}
        </>
      )}
    </span>
  );
};

/** What to tape, in the order in which a person walks away from the datum, with running totals. */
export const Sheet = memo(
  ({
    plan,
    style,
    target,
    ground,
    title,
  }: {
    plan: StraightPlan;
    style: LengthStyle;
    target: string;
    /** where it is set out: a mark near one of its lines is told from there too */
    ground: OnGround | null | undefined;
    title: string;
  }) => {
    const [datum, setDatum] = useState<Datum>('target');
    const [every, setEvery] = useState(false);
    const rows = sheetRows(plan, style, datum, every);
    const from = datum === 'target' ? target : 'start mark';
    const save = async (kind: 'svg' | 'csv'): Promise<void> => {
      try {
        const { sheetCsv, sheetSvg } = await onPress(
          () => import('@gravek/library/planning/sheetFile'),
        );
        if (kind === 'csv') download(fileName(title, 'csv'), sheetCsv(rows, style), 'text/csv');
        else download(fileName(title, 'svg'), sheetSvg(title, from, rows, style), 'image/svg+xml');
      } catch (error) {
        tell(sentenceOf(error));
      }
    };
    return (
      <section
        aria-label="Setting out"
        className={`sheet ${rows.length > 8 ? 'many' : ''} ${rows.length > 16 ? 'most' : ''}`}
      >
        <div className="print-only">{title}</div>
        <h2>Set out, from the {from}</h2>
        <div className="row-line no-print mb-1">
          <Segments
            label="Tape from"
            value={datum}
            onChoose={setDatum}
            options={[
              { value: 'target', label: target },
              { value: 'start', label: 'start' },
            ]}
          />
          <Form.Check
            type="switch"
            id="every-print"
            label="every print"
            checked={every}
            onChange={() => setEvery(!every)}
          />
          <Menu
            name="As a file"
            size="sm"
            className="ms-auto"
            items={[
              { name: 'as a drawing (SVG)', onChoose: () => void save('svg') },
              { name: 'as a table (CSV)', onChoose: () => void save('csv') },
            ]}
          />
        </div>
        <ol className="sheet-list">
          {rows.map(({ mark, fromDatumM, onM }, i) => (
            <li key={mark.key}>
              <Length m={fromDatumM} style={style} />
              <span>
                <strong>{mark.key === 'target' ? `The ${target}` : mark.label}</strong>
                <span className="small-text quiet sheet-hint">
                  {mark.hint} {mark.foot && <FootWord foot={mark.foot} />}
                </span>
                <FromLine
                  toTargetM={mark.toTargetM}
                  target={target}
                  ground={ground}
                  style={style}
                />
                {i > 0 && (
                  <span className="small-text quiet sheet-hint">
                    <Length m={onM} style={style} /> from the mark before
                  </span>
                )}
              </span>
            </li>
          ))}
        </ol>
      </section>
    );
  },
);
