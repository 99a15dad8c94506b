import type { OtherThing } from '@gravek/core/layout/otherThings';
import type { Drill, Fault, Movement, MovementPhase, School } from '@gravek/contract/movement';
import { plainSteps } from '@gravek/contract/phaseKinds';
import { drillOf } from '@gravek/library/movement/byCode';
import { AboutForm } from './edit/AboutForm';
import { DrillForm, StepForm } from './edit/DrillForm';
import { FaultForm } from './edit/FaultForm';
import { Items } from './edit/Items';
import { freshOther, OtherForm } from './edit/OtherForm';
import { PhaseForm } from './edit/PhaseForm';
import { PlaceForm } from './edit/PlaceForm';
import { freshWay, SchoolForm } from './edit/SchoolForm';
import { freeCode } from './edit/work';

export const PARTS = [
  { value: 'phases', label: 'Phases', under: ['phases'] },
  { value: 'faults', label: 'Faults', under: ['faults'] },
  { value: 'drills', label: 'Drills', under: ['drills'] },
  { value: 'progression', label: 'Order of drills', under: ['progression'] },
  { value: 'schools', label: 'Schools', under: ['schools'] },
  { value: 'others', label: 'Around it', under: ['others'] },
  { value: 'place', label: 'Place', under: ['place'] },
  {
    value: 'about',
    label: 'About',
    under: ['summary', 'usedBy', 'faces', 'loads', 'writtenFor', 'ruleSets', 'cautions'],
  },
] as const;
export type Part = (typeof PARTS)[number]['value'];

const freshPhase = (list: readonly MovementPhase[]): MovementPhase => ({
  code: freeCode(list, 'phase'),
  name: '',
  steps: plainSteps('build-up'),
  turn: null,
  ball: null,
  then: null,
  eyes: '',
  checkpoints: [],
  read: null,
});

/** One part of a movement with all its fields. */
export const EditorPart = ({ part, movement }: { part: Part; movement: Movement }) => (
  <>
    {part === 'phases' && (
      <Items<MovementPhase>
        at="phases"
        noun="phase"
        nameOf={(item) => item.name}
        fresh={freshPhase}
      >
        {(path) => <PhaseForm at={path} />}
      </Items>
    )}
    {part === 'faults' && (
      <Items<Fault>
        at="faults"
        noun="fault"
        nameOf={(item) => item.name}
        fresh={(list) => ({
          code: freeCode(list, 'fault'),
          name: '',
          sees: '',
          phases: movement.phases.slice(0, 1).map(({ code }) => code),
          severity: 2,
          safety: false,
          leadsTo: [],
          cue: '',
          drills: [],
        })}
      >
        {(path) => <FaultForm at={path} />}
      </Items>
    )}
    {part === 'drills' && (
      <Items<Drill>
        at="drills"
        noun="drill"
        nameOf={(item) => item.name}
        fresh={(list) => ({
          code: freeCode(list, 'drill'),
          name: '',
          how: '',
          part: { kind: 'all' },
          speedFraction: 0.6,
          force: null,
          rungs: ['walk', 'half', 'full'],
        })}
      >
        {(path) => <DrillForm at={path} />}
      </Items>
    )}
    {part === 'progression' && (
      <Items<NonNullable<Movement['progression']>[number]>
        at="progression"
        noun="step"
        nameOf={(item) => drillOf(movement, item.drill)?.name ?? ''}
        fresh={(list) => ({
          drill:
            movement.drills.find(({ code }) => list.every(({ drill }) => drill !== code))?.code ??
            '',
          goOn: '',
          weeks: '',
        })}
      >
        {(path) => <StepForm at={path} />}
      </Items>
    )}
    {part === 'place' && <PlaceForm />}
    {part === 'schools' && (
      <Items<School>
        at="schools"
        noun="disagreement"
        nameOf={(item) => item.question}
        fresh={(list) => {
          const first = freshWay([]);
          return {
            code: freeCode(list, 'school'),
            question: '',
            options: [first, freshWay([first])],
          };
        }}
      >
        {(path) => <SchoolForm at={path} />}
      </Items>
    )}
    {part === 'others' && (
      <Items<OtherThing> at="others" noun="thing" nameOf={(item) => item.name} fresh={freshOther}>
        {(path) => <OtherForm at={path} />}
      </Items>
    )}
    {part === 'about' && <AboutForm />}
  </>
);
