import { ownScript } from '../api/ownScript';

/** Keeps the pages on this device, so that they open without network. What cannot be kept is tried next time. */
export const keepPages = async (): Promise<void> => {
  if (!('serviceWorker' in navigator)) return;
  try {
    const { Workbox } = await import('workbox-window');
    const keeper = new Workbox(ownScript('/sw.js'));
    // What a newer Gravek keeps does not go with the page that is open.
    keeper.addEventListener('activated', ({ isUpdate, isExternal }) => {
      if (isUpdate || isExternal) window.location.reload();
    });
    await keeper.register({ immediate: true });
  } catch {
    // Without network, or where the browser keeps nothing.
  }
};
