import { create } from 'zustand';

/** Whether the password is being asked for again, and what waits for it. */
export const useAgain = create<{ waiting: ((isSignedIn: boolean) => void)[] }>(() => ({
  waiting: [],
}));

/** Asks for the password again. Returns whether it was given; several that wait are answered at once. */
export const askAgain = (): Promise<boolean> =>
  new Promise((resolve) => {
    useAgain.setState(({ waiting }) => ({ waiting: [...waiting, resolve] }));
  });

export const answerAgain = (isSignedIn: boolean): void => {
  const { waiting } = useAgain.getState();
  useAgain.setState({ waiting: [] });
  for (const resolve of waiting) resolve(isSignedIn);
};
