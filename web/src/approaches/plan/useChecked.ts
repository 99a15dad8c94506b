import type { Choices } from '@gravek/contract/approach';
import { useEffect, useMemo, useState } from 'react';

type Check = (choices: Choices) => Record<string, string>;

const TOUCHES = ['focusin', 'pointerdown'] as const;

/**
 * The choices of a plan as far as they can be solved, and what is wrong with them by field. What they are
 * checked by is loaded when somebody touches the page; what has changed before it is there is not drawn yet.
 *
 * @param sound whether they came as they were saved or begun, not as somebody left them half typed
 */
export const useChecked = (
  choices: Choices,
  sound: boolean,
): { drawn: Choices | null; invalid: Record<string, string> } => {
  const [begun] = useState(sound ? choices : null);
  const [check, setCheck] = useState<{ messages: Check } | null>(null);
  const wanted = choices !== begun;
  useEffect(() => {
    if (check) return undefined;
    let over = false;
    const load = (): void => {
      import('./choiceCheck').then(
        ({ choiceMessages }) => {
          if (!over) setCheck({ messages: choiceMessages });
        },
        // Without network: the next touch asks again.
        () => undefined,
      );
    };
    if (wanted) load();
    for (const touch of TOUCHES) document.addEventListener(touch, load);
    return () => {
      over = true;
      for (const touch of TOUCHES) document.removeEventListener(touch, load);
    };
  }, [wanted, check]);
  const invalid = useMemo(() => check?.messages(choices) ?? {}, [check, choices]);
  const known = check ? Object.keys(invalid).length === 0 : !wanted;
  return { drawn: known ? choices : null, invalid };
};
