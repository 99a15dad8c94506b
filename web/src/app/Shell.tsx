import { Suspense, useEffect, useRef } from 'react';
import { NavLink, Outlet, useLocation } from 'react-router';
import { api } from '../api/client';
import { forgetClub, queryClient } from '../api/queries';
import { Waiting } from '../controls/Notice';
import { tell } from '../controls/toasts';
import { Boundary } from '../controls/Boundary';
import { forgetDrafts } from '../controls/draft';
import { queue } from '../phone/store';
import { useSettings } from '../member/settings';

const PLACES = [
  ['/', 'Today'],
  ['/athletes', 'Athletes'],
  ['/movements', 'Movements'],
  ['/approaches', 'Approaches'],
  ['/sessions', 'Sessions'],
  ['/run', 'Run'],
  ['/faults', 'Faults'],
  ['/club', 'Club'],
] as const;

const signOut = async (): Promise<void> => {
  const waiting = await queue.count();
  if (
    waiting > 0 &&
    !window.confirm(
      `${waiting === 1 ? 'One rep waits' : `${waiting} reps wait`} to be sent. What waits stays on this device until you sign in again. Sign out?`,
    )
  ) {
    return;
  }
  try {
    await api.post('/sign-out');
  } catch {
    tell('The server cannot be reached; you are still signed in.');
    return;
  }
  await forgetClub();
  forgetDrafts();
  queryClient.clear();
  window.location.assign('/');
};

/** Navigation beside the place that is open. */
export const Shell = () => {
  const { sun, toggleSun } = useSettings();
  const { pathname } = useLocation();
  const main = useRef<HTMLElement>(null);
  const first = useRef(true);
  // A new place starts at its top, for the eye and for the keyboard.
  useEffect(() => {
    if (first.current) {
      first.current = false;
      return;
    }
    main.current?.focus({ preventScroll: true });
    window.scrollTo(0, 0);
  }, [pathname]);
  return (
    <div className="shell">
      <a className="skip-link" href="#main">
        Skip to the page
      </a>
      <nav className="shell-nav" aria-label="Places">
        <div className="shell-brand">gravek</div>
        {PLACES.map(([to, name]) => (
          <NavLink key={to} to={to} end={to === '/'} className="shell-link">
            {name}
          </NavLink>
        ))}
        <div className="shell-foot">
          <button type="button" aria-pressed={sun} onClick={toggleSun}>
            {sun ? 'Chalk look' : 'Sun look'}
          </button>
          <button type="button" onClick={() => void signOut()}>
            Sign out
          </button>
        </div>
      </nav>
      <main className="shell-main" id="main" ref={main} tabIndex={-1} style={{ outline: 'none' }}>
        <Boundary place={pathname}>
          <Suspense fallback={<Waiting what="Opening …" />}>
            <Outlet />
          </Suspense>
        </Boundary>
      </main>
    </div>
  );
};
