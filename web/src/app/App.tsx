import { lazy, Suspense, useLayoutEffect } from 'react';
import { useMe, wasSignedIn } from '../api/door';
import { Loaded, Waiting } from '../controls/Notice';
import { Toasts } from '../controls/toasts';
import { SignIn } from '../signIn/SignIn';
import { loadAhead } from './addresses';
import { useSettings } from '../member/settings';

const NewPassword = lazy(async () => ({
  default: (await import('../signIn/NewPassword')).NewPassword,
}));
const OwnPage = lazy(async () => ({ default: (await import('../ownView/OwnPage')).OwnPage }));
const openPlaces = () => import('./Places');
const Places = lazy(async () => ({ default: (await openPlaces()).Places }));
// Asked for beside the question who is signed in, not after it.
if (wasSignedIn()) {
  void openPlaces();
  loadAhead(window.location.pathname);
}

const Entered = () => {
  const me = useMe();
  return (
    <Loaded query={me} what="Opening Gravek …">
      {(member) => (member ? <Places member={member} /> : <SignIn />)}
    </Loaded>
  );
};

/** The door, and what opens behind it; each is loaded when it is wanted. */
export const App = () => {
  // Which door it is does not change while the page is open.
  const { pathname } = window.location;
  const sun = useSettings((settings) => settings.sun);
  useLayoutEffect(() => {
    document.documentElement.dataset.look = sun ? 'sun' : 'chalk';
  }, [sun]);
  return (
    <>
      <Suspense fallback={<Waiting what="Opening …" />}>
        {pathname === '/new-password' ? (
          <NewPassword />
        ) : pathname === '/own' ? (
          <OwnPage />
        ) : (
          <Entered />
        )}
      </Suspense>
      <Toasts />
    </>
  );
};
