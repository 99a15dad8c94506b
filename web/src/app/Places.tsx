import '../look/look.scss';
import type { Me } from '@gravek/contract/club';
import { lazy, Suspense, useEffect } from 'react';
import { BrowserRouter, Route, Routes } from 'react-router';
import { registerSW } from 'virtual:pwa-register';
import { useChanges } from '../api/changes';
import { Boundary } from '../controls/Boundary';
import { DraftOwner } from '../controls/draft';
import { Waiting } from '../controls/Notice';
import { MemberContext } from '../member/member';
import { keepSending, refreshKept } from '../phone/sync';
import { Help } from './Help';
import { Shell } from './Shell';

// Who has signed in may lose the network; who stands at the door has nothing to keep yet.
registerSW({ immediate: true });

const Today = lazy(async () => ({ default: (await import('../today/Today')).Today }));
const Athletes = lazy(async () => ({ default: (await import('../athletes/Athletes')).Athletes }));
const AthletePage = lazy(async () => ({
  default: (await import('../athletes/AthletePage')).AthletePage,
}));
const Movements = lazy(async () => ({
  default: (await import('../movements/Movements')).Movements,
}));
const Chains = lazy(async () => ({ default: (await import('../movements/Chains')).Chains }));
const MovementPage = lazy(async () => ({
  default: (await import('../movements/MovementPage')).MovementPage,
}));
const MovementEditor = lazy(async () => ({
  default: (await import('../movements/MovementEditor')).MovementEditor,
}));
const SquadSheet = lazy(async () => ({
  default: (await import('../approaches/setOut/SquadSheet')).SquadSheet,
}));
const Approaches = lazy(async () => ({
  default: (await import('../approaches/list/Approaches')).Approaches,
}));
const Planner = lazy(async () => ({
  default: (await import('../approaches/plan/Planner')).Planner,
}));
const SessionCard = lazy(async () => ({
  default: (await import('../sessions/SessionCard')).SessionCard,
}));
const Sessions = lazy(async () => ({ default: (await import('../sessions/Sessions')).Sessions }));
const SessionPage = lazy(async () => ({
  default: (await import('../sessions/SessionPage')).SessionPage,
}));
const Run = lazy(async () => ({ default: (await import('../run/Run')).Run }));
const RunChoice = lazy(async () => ({ default: (await import('../run/RunChoice')).RunChoice }));
const Faults = lazy(async () => ({ default: (await import('../faults/Faults')).Faults }));
const AthleteSheet = lazy(async () => ({
  default: (await import('../reports/AthleteSheet')).AthleteSheet,
}));
const SeasonSummary = lazy(async () => ({
  default: (await import('../reports/SeasonSummary')).SeasonSummary,
}));
const Films = lazy(async () => ({ default: (await import('../film/Films')).Films }));
const FilmDesk = lazy(async () => ({ default: (await import('../film/FilmDesk')).FilmDesk }));
const Club = lazy(async () => ({ default: (await import('../club/Club')).Club }));

const refreshAthletes = (): void => void refreshKept();

const Open = ({ clubId }: { clubId: string }) => {
  useChanges(refreshAthletes);
  useEffect(() => keepSending(clubId), [clubId]);
  return (
    <Suspense fallback={<Waiting what="Opening …" />}>
      <Routes>
        <Route
          path="run/:sessionId"
          element={
            <Boundary place="run">
              <Run />
            </Boundary>
          }
        />
        <Route element={<Shell />}>
          <Route index element={<Today />} />
          <Route path="athletes" element={<Athletes />} />
          <Route path="athletes/:id" element={<AthletePage />} />
          <Route path="movements" element={<Movements />} />
          <Route path="movements/chains" element={<Chains />} />
          <Route path="movements/:code" element={<MovementPage />} />
          <Route path="movements/:code/edit" element={<MovementEditor />} />
          <Route path="approaches" element={<Approaches />} />
          <Route path="approaches/:id" element={<Planner />} />
          <Route path="approaches/:id/squad" element={<SquadSheet />} />
          <Route path="sessions" element={<Sessions />} />
          <Route path="sessions/:id" element={<SessionPage />} />
          <Route path="sessions/:id/card" element={<SessionCard />} />
          <Route path="run" element={<RunChoice />} />
          <Route path="athletes/:id/sheet" element={<AthleteSheet />} />
          <Route path="faults" element={<Faults />} />
          <Route path="faults/season" element={<SeasonSummary />} />
          <Route path="film" element={<Films />} />
          <Route path="film/:id" element={<FilmDesk />} />
          <Route path="club" element={<Club />} />
          <Route path="*" element={<p>There is nothing at this address.</p>} />
        </Route>
      </Routes>
      <Help />
    </Suspense>
  );
};

/** All that a member sees. */
export const Places = ({ member }: { member: Me }) => (
  <MemberContext value={member}>
    <DraftOwner value={`${member.accountId}.${member.club.id}`}>
      <BrowserRouter>
        <Open clubId={member.club.id} />
      </BrowserRouter>
    </DraftOwner>
  </MemberContext>
);
