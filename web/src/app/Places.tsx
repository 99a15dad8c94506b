import '../look/look.scss';
import type { Me } from '@gravek/contract/club';
import { Suspense, useEffect } from 'react';
import { BrowserRouter, Route, Routes, useLocation } from 'react-router';
import { useAgain } from '../api/again';
import { useChanges } from '../api/changes';
import { whenShown } from '../api/shown';
import { Boundary } from '../controls/Boundary';
import { DraftOwner } from '../controls/draft';
import { Waiting } from '../controls/Notice';
import { opened } from '../controls/opened';
import { whenIdle } from '../controls/idle';
import { MemberContext, useTapper } from '../member/member';
import { FIELD, loadAhead, PLACES, type Place } from './addresses';
import { Help } from './Help';
import { keepPages } from './keepPages';
import { Shell } from './Shell';

// Who has signed in may lose the network; who stands at the door has nothing to keep yet.
whenShown(() => void keepPages());

/** Until it is tried again to load what sends reps. */
const AGAIN_MS = 5_000;

const PasswordAgain = opened(async () => (await import('../controls/PasswordAgain')).PasswordAgain);

const shown = ({ path, load }: Place) => ({ path, Shown: opened(load) });
const WHOLE_SCREEN = FIELD.map(shown);
const BESIDE_NAVIGATION = PLACES.map(shown);

// The phone's database is large, and most places are drawn without it.
const phone = () => import('../phone/sync');
const refreshAthletes = (): void => {
  phone().then(
    ({ refreshKept }) => refreshKept(),
    () => undefined, // without network nothing has changed here either
  );
};

const Open = () => {
  const tapper = useTapper();
  useChanges(refreshAthletes);
  const inField = useLocation().pathname.startsWith('/run/');
  // Where leaving the field screen leads must open without network too.
  useEffect(() => (inField ? whenIdle(() => void loadAhead('/run')) : undefined), [inField]);
  // Nothing that is shown waits for it.
  useEffect(() => {
    let over = false;
    let stop: (() => void) | undefined;
    const begin = (): void => {
      if (over) return;
      phone().then(
        ({ keepSending }) => {
          if (!over) stop = keepSending(tapper);
        },
        () => setTimeout(begin, AGAIN_MS),
      );
    };
    whenShown(begin);
    return () => {
      over = true;
      stop?.();
    };
  }, [tapper]);
  const asksAgain = useAgain(({ waiting }) => waiting.length > 0);
  return (
    <>
      <Suspense fallback={<Waiting what="Opening …" />}>
        <Routes>
          {WHOLE_SCREEN.map(({ path, Shown }) => (
            <Route
              key={path}
              path={path}
              element={
                <Boundary place="run">
                  <Shown />
                </Boundary>
              }
            />
          ))}
          <Route element={<Shell />}>
            {BESIDE_NAVIGATION.map(({ path, Shown }) => (
              <Route key={path} path={path} element={<Shown />} />
            ))}
            <Route path="*" element={<p>There is nothing at this address.</p>} />
          </Route>
        </Routes>
      </Suspense>
      {/* Nothing of the place goes away while these are loaded. */}
      <Suspense fallback={null}>
        <Help />
        {asksAgain && <PasswordAgain />}
      </Suspense>
    </>
  );
};

/** All that a member sees. */
export const Places = ({ member }: { member: Me }) => (
  <MemberContext value={member}>
    <DraftOwner value={`${member.accountId}.${member.club.id}`}>
      <BrowserRouter>
        <Open />
      </BrowserRouter>
    </DraftOwner>
  </MemberContext>
);
