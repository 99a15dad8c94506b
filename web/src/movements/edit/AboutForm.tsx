import { useRuleSets } from '../../parts/catalogue/useCatalogue';
import { ChoiceAt, LinesAt, WordsAt } from '../../parts/fields/At';
import { FEET, PicksAt } from '../../parts/fields/PicksAt';
import { LOADS_NAMED } from './loadNames';

const SIDES = [
  ['hand', 'the dominant hand'],
  ['take-off foot', 'the take-off foot'],
  ['neither', 'nothing: a call to the right goes right for everybody'],
] as const;

/** What a coach finds the movement by, and what holds for all of it. */
export const AboutForm = () => {
  const ruleSets = useRuleSets();
  return (
    <div className="stack">
      <WordsAt at="summary" label="In a sentence: what is planned" />
      <div className="edit-grid">
        <LinesAt at="usedBy" label="Used by" />
        <LinesAt at="faces" label="What the athlete faces" />
        <LinesAt at="alsoCalled" label="What else people call it" />
      </div>
      <LinesAt at="cautions" label="Mind" rows={4} />
      <div className="edit-grid">
        <ChoiceAt at="writtenFor.by" label="The side is decided by" options={SIDES} />
        <ChoiceAt at="writtenFor.side" label="It is written for the" options={FEET} />
      </div>
      <PicksAt at="loads" label="Asks of the body" options={LOADS_NAMED} />
      <PicksAt
        at="ruleSets"
        label="Held to the step rules of"
        options={ruleSets.map((set) => [set.id, set.name] as const)}
      />
    </div>
  );
};
