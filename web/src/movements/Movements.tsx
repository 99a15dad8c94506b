import type { Movement } from '@gravek/contract/movement';
import { laidOut } from '@gravek/library/planning/plan';
import { groupedByDoer } from '@gravek/library/session/groups';
import { nothingFor, searchIn, type Found } from '@gravek/library/movement/search';
import { useMemo, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Link, useNavigate } from 'react-router';
import { onPress, sentenceOf } from '../api/client';
import { useMayPlan } from '../member/member';
import { PageHead } from '../controls/PageHead';
import { Empty, Loaded } from '../controls/Notice';
import { tell } from '../controls/toasts';
import { useAddress } from '../controls/useAddress';
import { PlanThumb } from '../drawing/PlanThumb';
import { useAddMovement } from '../parts/catalogue/useOwnMovement';
import { useAllMovements, useCatalogue, type Catalogue } from '../parts/catalogue/useCatalogue';
import { bodyFor } from '../parts/catalogue/usual';

const KINDS: Record<string, string> = {
  movement: '',
  called: 'called',
  position: 'for',
  situation: 'when',
  phase: 'phase',
  exit: 'exit',
  fault: 'goes wrong',
  drill: 'drill',
  school: 'school',
};

const usual = bodyFor(undefined);

const Row = ({ found, isOfClub }: { found: Found; isOfClub: boolean }) => {
  const { movement, hits, drills } = found;
  const layout = useMemo(() => laidOut(movement, usual), [movement]);
  return (
    <li className="movement-row">
      <Link to={`/movements/${movement.code}`} className="movement-thumb" tabIndex={-1} aria-hidden>
        <PlanThumb layout={layout} />
      </Link>
      <div>
        <Link className="row-link movement-name" to={`/movements/${movement.code}`}>
          {movement.name}
        </Link>
        {isOfClub && <span className="tag ms-2">the club’s own</span>}
        <div>{movement.summary}</div>
        <div className="quiet small-text">{movement.usedBy.join(', ')}</div>
        {hits
          .filter((hit) => hit.kind !== 'movement')
          .map((hit) => (
            <div key={hit.kind + hit.code} className="hit">
              <span className="quiet">{KINDS[hit.kind]}</span>{' '}
              <Link to={`/movements/${movement.code}?${hit.kind}=${hit.code}`}>{hit.name}</Link>
              {hit.kind === 'fault' && drills.length > 0 && (
                <span className="quiet"> → drill: {drills.join(', ')}</span>
              )}
            </div>
          ))}
      </div>
    </li>
  );
};

const distinct = (
  movements: readonly Movement[],
  pick: (movement: Movement) => string[],
): string[] => [...new Set(movements.flatMap(pick))].sort((a, b) => a.localeCompare(b));

const Browse = ({ catalogue, all }: { catalogue: Catalogue; all: readonly Movement[] }) => {
  const { query, set, clear } = useAddress();
  const words = query.get('find') ?? '';
  const position = query.get('for') ?? '';
  const facing = query.get('when') ?? '';
  const search = useMemo(() => searchIn(all), [all]);
  const found = search(words).filter(
    ({ movement }) =>
      (!position || movement.usedBy.includes(position)) &&
      (!facing || movement.faces.includes(facing)),
  );
  const clubCodes = new Set(catalogue.clubMovements.map((movement) => movement.id));
  const elsewhere = nothingFor(words);
  // What was looked for comes best first; without words by who does it.
  const groups = words.trim()
    ? [{ name: '', movements: found.map(({ movement }) => movement.code) }]
    : groupedByDoer(found.map(({ movement }) => movement)).map((group) => ({
        name: group.name,
        movements: group.movements.map(({ code }) => code),
      }));
  return (
    <div className="stack">
      <div className="finder">
        <Form.Control
          type="search"
          size="lg"
          aria-label="Find a movement"
          placeholder="A position, what they face, what goes wrong …"
          value={words}
          onChange={(event) => set('find', event.target.value)}
        />
        <Form.Select
          aria-label="Position"
          value={position}
          onChange={(event) => set('for', event.target.value)}
        >
          <option value="">Every position</option>
          {distinct(all, (movement) => movement.usedBy).map((text) => (
            <option key={text}>{text}</option>
          ))}
        </Form.Select>
        <Form.Select
          aria-label="What the athlete faces"
          value={facing}
          onChange={(event) => set('when', event.target.value)}
        >
          <option value="">Whatever they face</option>
          {distinct(all, (movement) => movement.faces).map((text) => (
            <option key={text}>{text}</option>
          ))}
        </Form.Select>
      </div>
      {elsewhere && <div className="note">{elsewhere}</div>}
      <div className="quiet small-text" role="status">
        {found.length === 1 ? 'One movement' : `${found.length} movements`}
      </div>
      {found.length === 0 ? (
        <Empty title="Nothing fits these words.">
          Try what you see (“stops dead”), a position (“keeper”) or fewer words.{' '}
          <Button variant="link" className="p-0 align-baseline" onClick={clear}>
            Show all
          </Button>
        </Empty>
      ) : (
        groups.map(({ name, movements }) => (
          <section key={name} aria-label={name || 'Found'}>
            {name && <h2>{name}</h2>}
            <ul className="list-plain movement-list">
              {movements.map((code) => {
                const match = found.find(({ movement }) => movement.code === code)!;
                return <Row key={code} found={match} isOfClub={clubCodes.has(code)} />;
              })}
            </ul>
          </section>
        ))
      )}
    </div>
  );
};

const ReadIn = () => {
  const file = useRef<HTMLInputElement>(null);
  const { add, busy } = useAddMovement();
  const navigate = useNavigate();
  const [problem, setProblem] = useState<string | null>(null);
  const take = async (chosen: File): Promise<void> => {
    setProblem(null);
    try {
      const { readMovementFile } = await onPress(() => import('./file'));
      const read = readMovementFile(await chosen.text());
      if (!read.ok) {
        setProblem(read.message);
        return;
      }
      const stored = await add(read.movement);
      tell(`${stored.movement.name} is among the club’s own.`);
      void navigate(`/movements/${stored.id}`);
    } catch (error) {
      setProblem(sentenceOf(error));
    }
  };
  return (
    <>
      <input
        ref={file}
        type="file"
        accept="application/json,.json"
        className="visually-hidden"
        aria-label="Movement file"
        tabIndex={-1}
        onChange={(event) => {
          const chosen = event.target.files?.[0];
          event.target.value = '';
          if (chosen) void take(chosen);
        }}
      />
      <Button variant="outline-dark" disabled={busy} onClick={() => file.current?.click()}>
        {busy ? 'Reading …' : 'Read in a file'}
      </Button>
      {problem && (
        <div className="note note-wrong w-100" role="alert">
          {problem}
        </div>
      )}
    </>
  );
};

export const Movements = () => {
  const catalogue = useCatalogue();
  const all = useAllMovements();
  const mayPlan = useMayPlan();
  return (
    <>
      <PageHead title="Movements" over="What is planned, what to look for, what to do about it">
        <Link className="btn btn-outline-dark" to="/movements/chains">
          Chains
        </Link>
        {mayPlan && <ReadIn />}
      </PageHead>
      <Loaded query={all} what="Getting the movements …">
        {(movements) => <Browse catalogue={catalogue} all={movements} />}
      </Loaded>
    </>
  );
};
