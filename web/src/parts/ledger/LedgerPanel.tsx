import { LIVE_RATE } from '@gravek/core/cue/faultHistory';
import { counted } from '@gravek/core/words';
import type { Athlete } from '@gravek/contract/athlete';
import type { Movement } from '@gravek/contract/movement';
import { isTelling } from '@gravek/library/cue/ledger';
import { faultOf } from '@gravek/library/movement/byCode';
import { toldTo } from '@gravek/library/movement/sides';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { useAthleteFaults, useLedger } from '../../api/queries';
import { dayName } from '../../controls/dates';
import { Empty, Loaded } from '../../controls/Notice';
import { Uncounted } from '../../controls/Uncounted';
import { RateChart } from '../../drawing/RateChart';
import { fetchDocuments } from '../catalogue/documents';
import { useCatalogue } from '../catalogue/useCatalogue';
import { Causes } from './Causes';
import { CueInForce } from './CueInForce';
import { FaultDrills } from './FaultDrills';
import { Ladder } from './Ladder';
import { Filters, SHOWN } from './LedgerFilters';
import { LedgerTable } from './LedgerTable';
import { pointsOf } from './points';
import { Reads } from './Reads';
import { AthleteResults } from './ResultsPanel';
import {
  agreementSentence,
  agreementWords,
  contrastSentence,
  epochsSentence,
  whyState,
} from './words';

const InMovement = ({
  athlete,
  code,
  movement,
}: {
  athlete: Athlete;
  code: string;
  movement: Movement;
}) => {
  const [all, setAll] = useState(false);
  const [filters, setAsked] = useState<Record<string, string>>({});
  const [chosen, setChosen] = useState<string | null>(null);
  const query = useLedger(athlete.id, code, filters);
  return (
    <Loaded query={query} what="Getting the sessions …">
      {(ledger) => {
        const telling = ledger.rows.filter(isTelling).slice(0, SHOWN);
        const rows = all || telling.length === 0 ? ledger.rows : telling;
        const row = rows.find((row) => row.code === chosen);
        const live = row && row.rate >= LIVE_RATE ? faultOf(movement, row.code) : undefined;
        const turns = row ? epochsSentence(row) : null;
        const partly = Object.keys(filters).length > 0;
        return (
          <>
            <div className="ledger-parts">
              <CueInForce athlete={athlete} movement={movement} ledger={ledger} />
              <div className="stack">
                <Ladder athlete={athlete} movement={movement} ladder={ledger.ladder} />
                <Filters
                  ledger={ledger}
                  movement={movement}
                  athlete={athlete}
                  filters={filters}
                  onAsk={setAsked}
                />
                {ledger.log.length === 0 ? (
                  <span className="quiet">No rep was run like that.</span>
                ) : (
                  <LedgerTable
                    ledger={ledger}
                    rows={rows}
                    movement={movement}
                    chosen={chosen}
                    onChoose={setChosen}
                  />
                )}
                {partly && (
                  <p className="quiet small-text mb-0">
                    Rates are of the chosen reps; how a fault stands is judged over all of them.
                  </p>
                )}
                {row && ledger.log.length > 0 && (
                  <div>
                    <p className="mb-1">{whyState(row)}</p>
                    {turns && <p className="quiet small-text mb-1">{turns}</p>}
                    {row.rateSince && row.rateSince !== ledger.log[0]!.date && !partly && (
                      <p className="quiet small-text mb-1">
                        The rate now is that since {dayName(row.rateSince)}, when it changed for
                        sure.
                      </p>
                    )}
                    {live && row.code !== ledger.cue?.fault && (
                      <FaultDrills
                        athlete={athlete}
                        movement={movement}
                        fault={live}
                        rung={ledger.ladder?.rung ?? null}
                      />
                    )}
                    <RateChart
                      name={
                        movement.faults.find((fault) => fault.code === row.code)?.name ?? row.code
                      }
                      points={pointsOf(ledger, row, partly)}
                    />
                  </div>
                )}
                <Reads movement={movement} reads={ledger.reads} />
                <AthleteResults
                  movement={movement}
                  athlete={athlete}
                  sessions={ledger.results}
                  chains={ledger.chains}
                />
                {ledger.contrasts.length > 0 && (
                  <ul className="mb-0">
                    {ledger.contrasts.map((contrast) => (
                      <li key={`${contrast.axis}/${contrast.fault}`}>
                        {contrastSentence(movement, athlete, contrast)}
                      </li>
                    ))}
                  </ul>
                )}
                {ledger.gone.map(({ code, reps }) => (
                  <p key={code} className="quiet small-text mb-0">
                    “{code}” has been taken out of the movement since; {counted(reps, 'rep')} showed
                    it. They stay in the log as reps with a fault.
                  </p>
                ))}
                {ledger.agreement.length > 0 && (
                  <details>
                    <summary>{agreementWords(movement, ledger.agreement)}</summary>
                    <ul className="mb-0 small-text">
                      {ledger.agreement.map((agreement) => (
                        <li key={agreement.fault}>{agreementSentence(movement, agreement)}</li>
                      ))}
                    </ul>
                  </details>
                )}
                <div className="row-line small-text">
                  <span className="quiet">
                    Bars: share of the session’s reps. Line under them: it was the cue. Now: rate,
                    and 5 to 95 %. Press a fault for what decided.
                  </span>
                  {telling.length > 0 && ledger.rows.length > telling.length && (
                    <Button
                      variant="link"
                      size="sm"
                      className="p-0 ms-auto"
                      onClick={() => setAll(!all)}
                    >
                      {all
                        ? 'Only those that matter'
                        : `All ${ledger.rows.length} that were ever seen`}
                    </Button>
                  )}
                </div>
              </div>
            </div>
            <hr />
            <Causes
              movement={movement}
              rates={
                new Map(
                  ledger.rows.filter(({ seen }) => seen > 0).map(({ code, rate }) => [code, rate]),
                )
              }
            />
          </>
        );
      }}
    </Loaded>
  );
};

/** An athlete's faults, one movement at a time: the cue in force first, then the ledger. */
export const LedgerPanel = ({ athlete }: { athlete: Athlete }) => {
  const catalogue = useCatalogue();
  const faults = useAthleteFaults(athlete.id);
  const [chosenMovement, setAsked] = useState<string | null>(null);
  return (
    <section className="panel" aria-label="Faults">
      <Uncounted />
      <Loaded query={faults} what="Getting the reps …">
        {(list) => {
          const shownLedger = list.find((ledger) => ledger.movement === chosenMovement) ?? list[0];
          if (!shownLedger) {
            return (
              <>
                <h2>Faults</h2>
                <Empty title="No reps yet.">
                  Watch two or three at full speed, then log reps in a session; rates and the cue
                  appear here.
                </Empty>
              </>
            );
          }
          return (
            <>
              <div className="row-line mb-2">
                <h2 className="mb-0">Faults</h2>
                {list.length > 1 && (
                  <Form.Select
                    size="sm"
                    aria-label="Movement"
                    style={{ width: 'auto' }}
                    value={shownLedger.movement}
                    onChange={({ target: { value } }) =>
                      void fetchDocuments([value]).then(() => setAsked(value))
                    }
                  >
                    {list.map(({ movement }) => (
                      <option key={movement} value={movement}>
                        {catalogue.nameOf(movement)}
                      </option>
                    ))}
                  </Form.Select>
                )}
                <span className="quiet small-text">
                  {list.length === 1 && `${catalogue.nameOf(shownLedger.movement)}: `}
                  {counted(shownLedger.reps, 'rep')} in {counted(shownLedger.sessions, 'session')}
                </span>
              </div>
              <InMovement
                key={shownLedger.movement}
                athlete={athlete}
                code={shownLedger.movement}
                movement={toldTo(catalogue.of(shownLedger.movement), athlete)}
              />
            </>
          );
        }}
      </Loaded>
    </section>
  );
};
