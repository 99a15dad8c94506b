import type { LengthStyle } from '@gravek/core/units';
import type { Me } from '@gravek/contract/club';
import { createContext, useContext, useMemo } from 'react';
import type { Tapper } from '../phone/store';
import { useSettings } from './settings';

export const MemberContext = createContext<Me | null>(null);

/** The member who is signed in; only under the shell. */
export const useMember = (): Me => {
  const me = useContext(MemberContext);
  if (!me) throw new Error('useMember outside the shell');
  return me;
};

export const useMayPlan = (): boolean => useMember().role !== 'assistant';

/** Who taps reps on this device. */
export const useTapper = (): Tapper => {
  const { accountId, person, club } = useMember();
  return useMemo(() => ({ clubId: club.id, accountId, person }), [club.id, accountId, person]);
};

/** How lengths are written on this device; shoes need the athlete's shoe. */
export const useLengthStyle = (shoeM?: number | null): LengthStyle => {
  const me = useMember();
  const unit = useSettings((settings) => settings.unit) ?? me.club.unit;
  return useMemo(() => ({ unit, shoeM: shoeM ?? undefined }), [unit, shoeM]);
};
