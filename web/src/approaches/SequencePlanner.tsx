import { bodyOf, checkRules, type Layout, type LengthStyle } from '@gravek/core';
import type { Approach, Athlete, Movement, SequenceChoices } from '@gravek/contract';
import { branchesOf, laidOut, phasesOn, toldTo } from '@gravek/library';
import { useMemo, useState } from 'react';
import Form from 'react-bootstrap/Form';
import { Link } from 'react-router';
import { useLengthStyle, useMayPlan } from '../app/member';
import { Figure, Labelled, Length } from '../controls/Figure';
import { NumberInput } from '../controls/NumberInput';
import { UndoRedo } from '../controls/UndoRedo';
import { Zoom } from '../controls/Zoom';
import { FootWord } from '../drawing/FootPrint';
import { PhaseBeats } from '../drawing/PhaseBeats';
import { PlanView } from '../drawing/PlanView';
import { beatsOfLayout, phaseAt } from '../hearing/beats';
import { PlayControls } from '../hearing/PlayControls';
import { usePlayer } from '../hearing/player';
import { PartChoice } from '../movements/PartChoice';
import { Phases } from '../movements/Phases';
import { ReadChoices } from '../movements/ReadChoices';
import { RuleCheck } from '../movements/RuleCheck';
import { useRuleSets } from '../movements/useCatalogue';
import { estimatedNote } from '../movements/usual';
import { newSequence, sequenceOfPlan, type PlanDraft } from './draft';
import { PathPanels } from './panels/PathPanels';
import { PlanHead, PlanNotes } from './PlanHead';
import { UnitAndPrint } from './UnitAndPrint';
import { usePlan } from './usePlan';

/** Marks to set out, from the start mark: how far ahead and how far to which side. */
const SetOut = ({ layout, style }: { layout: Layout; style: LengthStyle }) => {
  const start = layout.marks.find((mark) => mark.kind === 'start') ?? layout.marks[0];
  const marks = layout.marks.filter((mark) => mark !== start && mark.label !== '');
  return (
    <section className="panel sheet-panel" aria-label="To set out">
      <h2>To set out</h2>
      {!start || marks.length === 0 ? (
        <p className="mb-0">Only a start mark.</p>
      ) : (
        <table className="grid-table">
          <thead>
            <tr>
              <th>Mark</th>
              <th className="num">Ahead</th>
              <th className="num">Aside</th>
            </tr>
          </thead>
          <tbody>
            <tr>
              <td>start</td>
              <td className="num">0</td>
              <td className="num">0</td>
            </tr>
            {marks.map((mark, i) => {
              const aside = mark.besideM - start.besideM;
              const ahead = mark.aheadM - start.aheadM;
              return (
                <tr key={i}>
                  <td>{mark.label}</td>
                  <td className="num">
                    <Length m={Math.abs(ahead)} style={style} />
                    {ahead < -0.005 && <span className="unit"> back</span>}
                  </td>
                  <td className="num">
                    {Math.abs(aside) < 0.005 ? (
                      '–'
                    ) : (
                      <>
                        <Length m={Math.abs(aside)} style={style} />{' '}
                        <span className="unit">{aside < 0 ? 'left' : 'right'}</span>
                      </>
                    )}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
    </section>
  );
};

const StepTable = ({
  layout,
  movement,
  style,
}: {
  layout: Layout;
  movement: Movement;
  style: LengthStyle;
}) => (
  <details>
    <summary>Every step</summary>
    <div className="table-scroll mt-2">
      <table className="grid-table">
        <thead>
          <tr>
            <th className="num">Step</th>
            <th>Foot</th>
            <th>Phase</th>
            <th className="num">Length</th>
            <th className="num">After</th>
            <th className="num">At</th>
          </tr>
        </thead>
        <tbody>
          {layout.footfalls
            .filter((fall) => fall.n > 0)
            .map((fall, i) => (
              <tr key={i}>
                <td className="num">{fall.n}</td>
                <td>
                  <FootWord foot={fall.foot} />
                </td>
                <td>{movement.phases.find((phase) => phase.code === fall.phase)?.name}</td>
                <td className="num">
                  <Length m={fall.lengthM} style={style} />
                </td>
                <td className="num">
                  <span className="figure">{fall.intervalS.toFixed(2)}</span>
                  <span className="unit"> s</span>
                </td>
                <td className="num">
                  <span className="figure">{fall.timeS.toFixed(2)}</span>
                  <span className="unit"> s</span>
                </td>
              </tr>
            ))}
        </tbody>
      </table>
    </div>
  </details>
);

/** Any movement but a run-up to a target, laid out for one athlete. */
export const SequencePlanner = ({
  movement: written,
  saved,
  athletes,
  first,
}: {
  movement: Movement;
  saved: Approach | null;
  athletes: Athlete[];
  first: Athlete | undefined;
}) => {
  const mayPlan = useMayPlan();
  const work = usePlan<PlanDraft<SequenceChoices>>(
    saved,
    newSequence(written, first),
    sequenceOfPlan,
  );
  const { draft, change, served } = work;
  const { choices } = draft;
  const [athleteId, setAthleteId] = useState(first?.id ?? athletes[0]!.id);
  const athlete = athletes.find((one) => one.id === athleteId) ?? athletes[0]!;
  const style = useLengthStyle(athlete.shoeM);
  const [typed, setTyped] = useState<string | null>(null);
  const [phase, setPhase] = useState<string | null>(null);
  const ruleSets = useRuleSets();
  const set = (asked: Partial<SequenceChoices>): void =>
    change({ ...draft, choices: { ...choices, ...asked } }, Object.keys(asked).join());

  const body = useMemo(() => bodyOf(athlete), [athlete]);
  const movement = toldTo(written, body);
  const layout = useMemo(() => laidOut(movement, body, choices), [movement, body, choices]);
  const branches = useMemo(() => branchesOf(movement, body, choices), [movement, body, choices]);
  const beats = useMemo(() => beatsOfLayout(layout), [layout]);
  const player = usePlayer(beats, layout.totalTimeS);
  const steps = layout.footfalls.filter((fall) => fall.n > 0);
  const [zoom, setZoom] = useState(1);
  const rules = ruleSets.find((one) => one.id === choices.ruleSet);
  return (
    <>
      <PlanHead
        plan={{ ...work, rename: (name) => change({ ...draft, name }, 'name') }}
        athlete={athlete}
        athletes={athletes}
        saved={saved !== null}
        onAthlete={setAthleteId}
        onSave={() => void work.save(athlete.id, typed !== null)}
      >
        <Labelled label="Steps">
          <Figure parts={[{ figure: String(steps.at(-1)?.n ?? 0), unit: '' }]} big />
        </Labelled>
        <Labelled label="First foot">
          <span className="figure figure-big">{steps[0]?.foot ?? '–'}</span>
        </Labelled>
        <Labelled label="Last foot">
          <span className="figure figure-big">{steps.at(-1)?.foot ?? '–'}</span>
        </Labelled>
        <Labelled label="Takes">
          <Figure parts={[{ figure: layout.totalTimeS.toFixed(1), unit: 's' }]} big />
        </Labelled>
      </PlanHead>
      <PlanNotes
        plan={work}
        athlete={athlete}
        movement={movement}
        estimated={estimatedNote(athlete, body.estimated)}
      />
      <div className="strip-panel">
        <div className="row-line no-print strip-tools">
          <UndoRedo {...work.history} />
          <Zoom zoom={zoom} onZoom={setZoom} />
        </div>
        <PlanView
          zoom={zoom}
          branches={branches}
          layout={layout}
          player={player}
          shoeM={body.shoeM}
          phase={phase}
          maxHeight={300}
          label={`${movement.name} for ${athlete.name}: ${steps.at(-1)?.n ?? 0} steps in ${layout.totalTimeS.toFixed(1)} seconds${layout.mirrored ? ', mirrored' : ''}`}
        />
        <PhaseBeats layout={layout} phases={movement.phases} player={player} />
        <PlayControls player={player} name={draft.name} nameAt={phaseAt(layout, movement.phases)} />
      </div>
      <div className="stack mb-3">
        <PathPanels
          movement={movement}
          athlete={athlete}
          body={body}
          layout={layout}
          choices={choices}
          style={style}
          disabled={!mayPlan}
          onChoose={set}
        />
      </div>
      <div className="planner-columns">
        <section aria-label="The plan" className="no-print stack">
          <h2 className="mb-0">The plan</h2>
          <div>
            <Link to={`/movements/${movement.code}`}>{movement.name}</Link>
            {layout.mirrored && <span className="quiet">, in the mirror</span>}
          </div>
          <ReadChoices movement={movement} chosen={choices} disabled={!mayPlan} onChoose={set} />
          <PartChoice
            movement={movement}
            drill={choices.drill}
            explained
            disabled={!mayPlan}
            onChoose={(drill) => set({ drill })}
          />
          <label className="choice">
            <span className="form-label">Speed, % of full</span>
            <NumberInput
              value={choices.speedFraction}
              scale={100}
              decimals={0}
              width="6rem"
              onNumber={(speed) => {
                if (speed < 0.2 || speed > 1.1) {
                  setTyped('Between 20 and 110 %.');
                  return;
                }
                setTyped(null);
                set({ speedFraction: speed });
              }}
              onMessage={(message) => message !== null && setTyped(message)}
            />
            {(typed ?? served.speedFraction) && (
              <span className="field-message" role="alert">
                {typed ?? served.speedFraction}
              </span>
            )}
          </label>
          <label className="choice">
            <span className="form-label">Step rules</span>
            <Form.Select
              value={choices.ruleSet ?? ''}
              disabled={!mayPlan}
              onChange={(event) => set({ ruleSet: event.target.value || null })}
            >
              <option value="">none</option>
              {ruleSets.map((one) => (
                <option key={one.id} value={one.id}>
                  {one.name}
                </option>
              ))}
            </Form.Select>
          </label>
        </section>
        <Phases
          movement={movement}
          path={phasesOn(movement, choices)}
          chosen={phase}
          onChoose={setPhase}
        />
        <div className="stack">
          {rules && (
            <RuleCheck checked={[{ set: rules, breaks: checkRules(layout.footfalls, rules) }]} />
          )}
          <SetOut layout={layout} style={style} />
          <StepTable layout={layout} movement={movement} style={style} />
          <UnitAndPrint
            athlete={athlete}
            unit={style.unit}
            onLeave={saved && mayPlan ? () => void work.leave() : undefined}
          />
        </div>
      </div>
    </>
  );
};
