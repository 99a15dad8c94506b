import type { Me } from '@gravek/contract/club';
import { useQuery } from '@tanstack/react-query';
import { useLayoutEffect } from 'react';
import { onPress } from '../api/client';
import { askMe, useMe, wasSignedIn } from '../api/door';
import { Loaded } from '../controls/Notice';
import { opened } from '../controls/opened';
import { Toasts } from '../controls/toasts';
import { SignIn } from '../signIn/SignIn';
import { loadAhead } from './addresses';
import { useSettings } from '../member/settings';

const NewPassword = opened(async () => (await import('../signIn/NewPassword')).NewPassword);
const Invitation = opened(async () => (await import('../signIn/Invitation')).Invitation);
const OwnPage = opened(async () => (await import('../ownView/OwnPage')).OwnPage);
const Partner = opened(async () => (await import('../partner/Partner')).Partner);
const openPlaces = async () => {
  const [{ Places }] = await Promise.all([import('./Places'), loadAhead(window.location.pathname)]);
  return Places;
};
// What is behind the door is asked for beside the question who is signed in, not after it.
if (wasSignedIn()) askMe();
let ahead = wasSignedIn() ? openPlaces() : null;
ahead?.catch(() => {
  ahead = null;
});

/** The places behind the door, once they are loaded. */
const usePlaces = () =>
  useQuery({
    queryKey: ['places'],
    staleTime: Infinity,
    gcTime: Infinity,
    retry: false,
    queryFn: async () => ({ Places: await onPress(() => ahead ?? openPlaces()) }),
  });

const Inside = ({ member }: { member: Me }) => (
  <Loaded query={usePlaces()} what="Opening …">
    {({ Places }) => <Places member={member} />}
  </Loaded>
);

const Entered = () => {
  const me = useMe();
  return (
    <Loaded query={me} what="Opening Gravek …">
      {(member) => (member ? <Inside member={member} /> : <SignIn />)}
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
      {pathname === '/new-password' ? (
        <NewPassword />
      ) : pathname === '/invitation' ? (
        <Invitation />
      ) : pathname === '/own' ? (
        <OwnPage />
      ) : pathname === '/partner' ? (
        <Partner />
      ) : (
        <Entered />
      )}
      <Toasts />
    </>
  );
};
