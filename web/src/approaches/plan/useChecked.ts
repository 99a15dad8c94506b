import type { Choices } from '@gravek/contract/approach';
import { useEffect, useMemo, useState } from 'react';

type Check = (choices: Choices) => Record<string, string>;

/**
 * The choices of a plan as far as they can be drawn, and what is wrong with them by field. What they are
 * checked by is loaded with the first change; until it is there, they are drawn as they came.
 *
 * @param sound whether they came as they were saved or begun, not as somebody left them half typed
 */
export const useChecked = (
  choices: Choices,
  sound: boolean,
): { drawn: Choices | null; invalid: Record<string, string> } => {
  const [begun] = useState(sound ? choices : null);
  const [check, setCheck] = useState<{ messages: Check } | null>(null);
  const wanted = !sound || choices !== begun;
  useEffect(() => {
    if (!wanted || check) return undefined;
    let over = false;
    import('./choiceCheck').then(
      ({ choiceMessages }) => {
        if (!over) setCheck({ messages: choiceMessages });
      },
      // Without network: the next change asks again.
      () => undefined,
    );
    return () => {
      over = true;
    };
  }, [wanted, check, choices]);
  const invalid = useMemo(() => check?.messages(choices) ?? {}, [check, choices]);
  if (!check && wanted) return { drawn: begun, invalid };
  return { drawn: Object.keys(invalid).length === 0 ? choices : null, invalid };
};
