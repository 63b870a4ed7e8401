/** A video or GIF of which somebody is to choose the picture to trace; told to whoever shows the choice. */
let file: File | null = null;
const listeners = new Set<() => void>();

export const frameRequest = {
  get: (): File | null => file,
  set(next: File | null): void {
    file = next;
    for (const tell of listeners) tell();
  },
  subscribe(listener: () => void): () => void {
    listeners.add(listener);
    return () => listeners.delete(listener);
  },
};
