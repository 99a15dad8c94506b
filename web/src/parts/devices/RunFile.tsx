import { courseOf, minutesOf, type Minute } from '@gravek/core/measuring/deviceCourse';
import { spreadOf } from '@gravek/core/chance/spread';
import { formatSpeed } from '@gravek/core/units';
import type { Athlete } from '@gravek/contract/athlete';
import { RECORDED_MAX } from '@gravek/library/measuring/recorded';
import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import { v7 as uuid } from 'uuid';
import { api, fieldsOf, sentenceOf } from '../../api/client';
import { useWrite } from '../../api/queries';
import { counted } from '@gravek/core/words';
import { Conflict } from '../../controls/Conflict';
import { Field } from '../../controls/Field';
import { AskWindow } from '../../controls/Window';
import { tell } from '../../controls/toasts';
import { useLengthStyle, useMember } from '../../member/member';
import { fileWork } from './fileWork';

type Read = { name: string; minutes: Minute[]; left: string[] };

/** A steady run that a watch has recorded, from its file: minute by minute. */
export const RunFile = ({ athlete, onClose }: { athlete: Athlete; onClose: () => void }) => {
  const { today } = useMember();
  const { unit } = useLengthStyle();
  const [id] = useState(() => uuid());
  const [read, setRead] = useState<Read | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [takenOn, setTakenOn] = useState(today);
  const [target, setTarget] = useState('');
  const write = useWrite(
    (body: object) => api.post(`/athletes/${athlete.id}/readings`, body),
    'athletes',
  );
  const open = async (file: File): Promise<void> => {
    setProblem(null);
    setRead(null);
    // Looked at before it is read: a huge file would hold up the page.
    if (file.size > RECORDED_MAX) {
      setProblem('This file is larger than any run: over 20 MB are not read.');
      return;
    }
    const found = await fileWork().recorded(await file.text());
    if (!found.ok) {
      setProblem(found.why);
      return;
    }
    const course = courseOf(found.readings);
    const minutes = minutesOf(course);
    if (minutes.length === 0) {
      setProblem('Less than a minute of running is in this file.');
      return;
    }
    setRead({
      name: file.name,
      minutes,
      left: [
        ...(course.impossible > 0
          ? [`${counted(course.impossible, 'reading')} that nobody runs left out`]
          : []),
        ...(course.gaps.length > 0 ? [counted(course.gaps.length, 'gap')] : []),
      ],
    });
  };
  const cadences = (read?.minutes ?? []).map(({ cadenceSpm }) => Math.round(cadenceSpm));
  const speeds = (read?.minutes ?? []).flatMap(({ speedMps }) => speedMps ?? []);
  const save = async (): Promise<void> => {
    if (!read) return;
    const targetSpm = target.trim() === '' ? null : Number(target.replace(',', '.'));
    if (targetSpm !== null && !(targetSpm >= 60 && targetSpm <= 300)) {
      setProblem('Write the target as steps a minute, such as 174, or leave it empty.');
      return;
    }
    const kept = read.minutes.slice(0, 180);
    try {
      await write.mutateAsync({
        id,
        athleteId: athlete.id,
        takenOn,
        source: 'device',
        note: `From ${read.name}`.slice(0, 200),
        reading: {
          kind: 'steady',
          targetSpm: targetSpm,
          minutesSpm: kept.map(({ cadenceSpm }) => Math.round(cadenceSpm)),
          minutesMps: kept.some(({ speedMps }) => speedMps !== null)
            ? kept.map(({ speedMps }) => speedMps && Number(speedMps.toFixed(2)))
            : null,
        },
      });
      tell(`${counted(read.minutes.length, 'minute')} kept for ${athlete.name}.`);
      onClose();
    } catch (error) {
      setProblem(Object.values(fieldsOf(error))[0] ?? sentenceOf(error));
    }
  };
  return (
    <AskWindow
      title="A run recorded elsewhere"
      act="Keep this run"
      disabled={!read || write.isPending}
      onClose={onClose}
      onSubmit={() => void save()}
    >
      <Field
        label="TCX or GPX file"
        hint="Cadence and speed are taken from it; where it was run is not kept."
      >
        <Form.Control
          type="file"
          accept=".tcx,.gpx,.xml"
          onChange={(event) => {
            const [file] = (event.target as HTMLInputElement).files ?? [];
            if (file) void open(file);
          }}
        />
      </Field>
      {read && (
        <>
          <p className="mb-0">
            <strong>{counted(read.minutes.length, 'minute')}</strong>, on average{' '}
            <strong>{Math.round(spreadOf(cadences).mean)}</strong> steps/min, from{' '}
            {Math.min(...cadences)} to {Math.max(...cadences)}
            {speeds.length > 0 && (
              <>
                , at <strong>{formatSpeed(spreadOf(speeds).mean, unit, 2)}</strong>
              </>
            )}
            {read.left.length > 0 && <span className="quiet">; {read.left.join(', ')}</span>}.
          </p>
          <div className="film-fields">
            <Field label="Run on">
              <Form.Control
                type="date"
                value={takenOn}
                max={today}
                onChange={(event) => setTakenOn(event.target.value)}
              />
            </Field>
            <Field label="It was to be, steps a minute">
              <Form.Control
                inputMode="decimal"
                placeholder="no target"
                value={target}
                onChange={(event) => setTarget(event.target.value)}
              />
            </Field>
          </div>
        </>
      )}
      <Conflict problem={problem} />
    </AskWindow>
  );
};
