import { useState } from 'react';
import { opened } from '../controls/opened';
import { useHelp } from '../controls/help';
import { useKeys } from '../controls/keys';

const HelpPage = opened(async () => (await import('./HelpPage')).HelpPage);

/** On `?`: help for the place that is open, loaded when it is first asked for. */
export const Help = () => {
  const { open, show } = useHelp();
  const [asked, setAsked] = useState(false);
  if (open && !asked) setAsked(true);
  useKeys((key) => {
    if (key === '?') show(true);
  });
  return asked ? <HelpPage /> : null;
};
