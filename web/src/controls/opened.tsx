import type { ComponentType } from 'react';
import { useLater } from './later';
import { Failed, Waiting } from './Notice';

/**
 * A part of a page that a press opens, loaded with that press.
 *
 * @example
 * const TrialForm = opened(async () => (await import('./TrialForm')).TrialForm);
 */
export const opened = <Props extends object>(load: () => Promise<ComponentType<Props>>) => {
  const Opened = (props: Props) => {
    const { part: Part, failed, again } = useLater(load);
    if (Part) return <Part {...props} />;
    if (failed) return <Failed error={failed} again={again} />;
    return <Waiting what="Opening …" />;
  };
  return Opened;
};
