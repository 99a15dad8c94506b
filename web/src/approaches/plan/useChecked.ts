import type { Choices } from '@gravek/contract/approach';
import { useEffect, useMemo, useState } from 'react';

type Check = (choices: Choices) => Record<string, string>;

const TOUCHES = ['focusin', 'pointerdown'] as const;

/**
 * The choices of a plan as far as they can be solved, and what is wrong with them by field. What they are
 * checked by is loaded when somebody touches the page.
 *
 * @param sound whether they came as they were saved or begun, not as somebody left them half typed
 * @returns `pending` while that is on its way and they have changed already: drawn are those they came as
 */
export const useChecked = (
  choices: Choices,
  sound: boolean,
): { drawn: Choices | null; invalid: Record<string, string>; pending: boolean } => {
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
  const wrong = Object.keys(invalid).length > 0;
  return { drawn: !check ? begun : wrong ? null : choices, invalid, pending: !check && wanted };
};
