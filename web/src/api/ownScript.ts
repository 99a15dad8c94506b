type Policy = { createScriptURL: (url: string) => string };
type Factory = { createPolicy: (name: string, rules: Policy) => Policy };

/** Where browsers run nothing else, scripts that are named in a text must be of this very address. */
const policy = (globalThis as { trustedTypes?: Factory }).trustedTypes?.createPolicy('gravek', {
  createScriptURL: (url) => {
    const { origin, href } = new URL(url, window.location.href);
    if (origin !== window.location.origin) throw new TypeError('A script of another address.');
    return href;
  },
});

/** The address of a worker or service worker, such that the browser takes it. */
export const ownScript = (url: string): string => policy?.createScriptURL(url) ?? url;
