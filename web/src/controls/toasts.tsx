import { create } from 'zustand';

type Toast = { id: number; text: string; undo?: (() => void) | undefined };

const SHOWN_MS = 8_000;
let count = 0;

const useToasts = create<{ list: Toast[] }>(() => ({ list: [] }));

const drop = (id: number): void =>
  useToasts.setState(({ list }) => ({ list: list.filter((toast) => toast.id !== id) }));

/** Says what was done, with a way to undo it. What cannot be undone is said once, however often it was done. */
export const tell = (text: string, undo?: () => void): void => {
  const id = (count += 1);
  useToasts.setState(({ list }) => {
    const others = list.filter((toast) => toast.text !== text || toast.undo);
    return { list: [...others.slice(-2), { id, text, undo }] };
  });
  setTimeout(() => drop(id), SHOWN_MS);
};

export const Toasts = () => {
  const list = useToasts((state) => state.list);
  return (
    <div className="toasts" role="status" aria-live="polite">
      {list.map(({ id, text, undo }) => (
        <div className="toast-line" key={id}>
          <span>{text}</span>
          {undo && (
            <button
              type="button"
              onClick={() => {
                drop(id);
                undo();
              }}
            >
              Undo
            </button>
          )}
        </div>
      ))}
    </div>
  );
};
