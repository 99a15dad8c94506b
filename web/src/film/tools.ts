import type { PicturePoint } from '@gravek/core/film/planeMap';
import { create } from 'zustand';

export const TOOLS = ['look', 'ground', 'contacts', 'posture', 'result'] as const;
/** What is being done with the film. */
export type Tool = (typeof TOOLS)[number];

export const TOOL_NAMES: Record<Tool, string> = {
  look: 'Look',
  ground: 'Ground',
  contacts: 'Contacts',
  posture: 'Posture',
  result: 'Result',
};

type State = {
  tool: Tool;
  /** presses that belong together and wait for the rest of them */
  begun: readonly PicturePoint[];
  choose: (tool: Tool) => void;
  press: (begun: readonly PicturePoint[]) => void;
};

export const useTool = create<State>()((set) => ({
  tool: 'look',
  begun: [],
  choose: (tool) => set({ tool, begun: [] }),
  press: (begun) => set({ begun }),
}));
