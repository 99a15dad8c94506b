import { Suspense, useEffect, useRef, useState } from 'react';
import { NavLink, Outlet, useLocation } from 'react-router';
import { api, onPress, sentenceOf } from '../api/client';
import { forgetClub, queryClient } from '../api/door';
import { Waiting } from '../controls/Notice';
import { tell } from '../controls/toasts';
import { Boundary } from '../controls/Boundary';
import { forgetDrafts } from '../controls/draft';
import { useHelp } from '../controls/help';
import { useSettings } from '../member/settings';

const PLACES = [
  ['/', 'Today'],
  ['/athletes', 'Athletes'],
  ['/movements', 'Movements'],
  ['/approaches', 'Approaches'],
  ['/sessions', 'Sessions'],
  ['/run', 'Run'],
  ['/faults', 'Faults'],
  ['/film', 'Film'],
  ['/club', 'Club'],
] as const;

const signOut = async (): Promise<void> => {
  let waiting: number;
  try {
    const { queue } = await onPress(() => import('../phone/store'));
    waiting = await queue.count();
  } catch (error) {
    tell(sentenceOf(error));
    return;
  }
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

/** Within the thumb's reach on a phone; the rest is under More. */
const BAR = PLACES.filter(([to]) => ['/', '/run', '/faults'].includes(to));
const MORE = PLACES.filter((place) => !BAR.includes(place));

const Foot = () => {
  const { sun, toggleSun } = useSettings();
  const show = useHelp((help) => help.show);
  return (
    <>
      <button type="button" aria-label="What is this page for?" onClick={() => show(true)}>
        ?
      </button>
      <button type="button" aria-pressed={sun} onClick={toggleSun}>
        {sun ? 'Chalk look' : 'Sun look'}
      </button>
      <button type="button" onClick={() => void signOut()}>
        Sign out
      </button>
    </>
  );
};

/** On a phone: what is used in the field at the bottom, everything else one press away. */
const BottomBar = ({ pathname }: { pathname: string }) => {
  // Open for the place that it was opened on: going somewhere closes it.
  const [openOn, setOpenOn] = useState<string | null>(null);
  const open = openOn === pathname;
  const inMore = MORE.some(([to]) => pathname.startsWith(to));
  return (
    <nav
      className="shell-bar"
      aria-label="Places in the field"
      onKeyDown={(event) => event.key === 'Escape' && setOpenOn(null)}
    >
      {open && (
        <div className="shell-more" id="more">
          {MORE.map(([to, name]) => (
            <NavLink key={to} to={to} className="shell-link">
              {name}
            </NavLink>
          ))}
          <div className="shell-foot">
            <Foot />
          </div>
        </div>
      )}
      {BAR.map(([to, name]) => (
        <NavLink key={to} to={to} end={to === '/'} className="shell-link">
          {name}
        </NavLink>
      ))}
      <button
        type="button"
        className={inMore ? 'shell-link active' : 'shell-link'}
        aria-expanded={open}
        aria-controls="more"
        onClick={() => setOpenOn(open ? null : pathname)}
      >
        More
      </button>
    </nav>
  );
};

/** Navigation beside the place that is open. */
export const Shell = () => {
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
          <Foot />
        </div>
      </nav>
      <main className="shell-main" id="main" ref={main} tabIndex={-1} style={{ outline: 'none' }}>
        <Boundary place={pathname}>
          <Suspense fallback={<Waiting what="Opening …" />}>
            <Outlet />
          </Suspense>
        </Boundary>
      </main>
      <BottomBar pathname={pathname} />
    </div>
  );
};
