import type { LengthUnit } from '@gravek/core/units';
import { create } from 'zustand';
import { persist } from 'zustand/middleware';

/** What one device prefers, apart from the club's settings. */
type Settings = {
  /** null: as the club has it */
  unit: LengthUnit | null;
  sun: boolean;
  /** the ground that was chosen last, of whichever club */
  groundId: string | null;
  setGround: (groundId: string | null) => void;
  /** club → first steps that were skipped there */
  skipped: Record<string, string[]>;
  skip: (clubId: string, step: string) => void;
  setUnit: (unit: LengthUnit | null) => void;
  toggleSun: () => void;
};

export const useSettings = create<Settings>()(
  persist(
    (set) => ({
      unit: null,
      sun: false,
      groundId: null,
      setGround: (groundId) => set({ groundId }),
      skipped: {},
      skip: (clubId, step) =>
        set(({ skipped }) => ({
          skipped: { ...skipped, [clubId]: [...(skipped[clubId] ?? []), step] },
        })),
      setUnit: (unit) => set({ unit }),
      toggleSun: () => set(({ sun }) => ({ sun: !sun })),
    }),
    { name: 'gravek.settings' },
  ),
);
