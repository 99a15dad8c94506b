import { lazy, Suspense, type ComponentType } from 'react';
import { Waiting } from './Notice';

/**
 * A part of a page that a press opens, loaded with that press.
 *
 * @example
 * const TrialForm = opened(async () => (await import('./TrialForm')).TrialForm);
 */
export const opened = <Props extends object>(load: () => Promise<ComponentType<Props>>) => {
  const Part = lazy(async () => ({ default: (await load()) as ComponentType<object> }));
  return (props: Props) => (
    <Suspense fallback={<Waiting what="Opening …" />}>
      <Part {...props} />
    </Suspense>
  );
};
