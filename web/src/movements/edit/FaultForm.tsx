import { FAULT_FIGURES, type FaultFigure } from '@gravek/contract/movementParts';
import { ChoiceAt, FlagAt, NumberAt, TextAt, WordsAt } from '../../parts/fields/At';
import { useAt } from '../../parts/fields/fields';
import { PicksAt } from '../../parts/fields/PicksAt';
import { codeNames, useWork } from './work';

const FIGURE_NAMES: Record<FaultFigure, string> = {
  'first-step-shorter': 'first step shorter than planned',
  'shortened-before': 'a step shortened before the zone',
  'short-steps-longer': 'short steps longer than planned',
  slowed: 'speed lost at the end',
  'last-step-longer': 'last step longer than planned',
  'over-line': 'foot beyond the line',
  'foot-ahead-of-hip': 'foot ahead of the hip',
  drifted: 'drift in the jump',
  'cadence-under': 'cadence under the plan',
  'speed-over': 'speed over the plan',
};
const FIGURES_NAMED = FAULT_FIGURES.map((figure) => [figure, FIGURE_NAMES[figure]] as const);

export const FaultForm = ({ at }: { at: string }) => {
  const { movement } = useWork();
  const { value } = useAt<{ code: string; read?: boolean }>(at);
  const wrong = value.read === true;
  return (
    <>
      <div className="edit-grid">
        <TextAt at={`${at}.name`} label="Name" />
        <NumberAt at={`${at}.severity`} label="Severity, 1 small to 3 grave" decimals={0} />
        <FlagAt at={`${at}.safety`} label="Can hurt somebody" />
        <FlagAt at={`${at}.read`} label="A wrong answer to a read" />
        <ChoiceAt
          at={`${at}.figure`}
          label="A film or device shows it by"
          options={FIGURES_NAMED}
          none="nothing: it is seen"
        />
      </div>
      <WordsAt at={`${at}.sees`} label="What is seen" />
      <TextAt at={`${at}.cue`} label="Cue" hint="A few words, said before the next rep." />
      <PicksAt
        at={`${at}.phases`}
        label={wrong ? 'Answers the reads of' : 'Shows in'}
        options={codeNames(wrong ? movement.phases.filter((phase) => phase.read) : movement.phases)}
        empty="No phase has a read yet."
      />
      <PicksAt
        at={`${at}.leadsTo`}
        label="Brings about"
        options={codeNames(movement.faults.filter((fault) => fault.code !== value.code))}
        empty="There is no other fault yet."
      />
      <PicksAt
        at={`${at}.drills`}
        label="Drills against it"
        options={codeNames(movement.drills)}
        empty="There is no drill yet."
      />
    </>
  );
};
