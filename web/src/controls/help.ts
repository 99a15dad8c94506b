import { create } from 'zustand';

/** Whether the place that is open explains itself just now. */
export const useHelp = create<{ open: boolean; show: (open: boolean) => void }>((set) => ({
  open: false,
  show: (open) => set({ open }),
}));
