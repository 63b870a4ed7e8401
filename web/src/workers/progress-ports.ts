import * as Comlink from 'comlink';

type Progress = (share: number) => void;

/** By what is told of progress, the port over which it is told. */
const ports = new WeakMap<Progress, MessagePort>();

/** From now on functions go to a worker, or come to it, as what is told of progress: one way, over a port of their own. */
export function tellProgress(): void {
  const handler: Comlink.TransferHandler<Progress, MessagePort> = {
    canHandle: (value): value is Progress => typeof value === 'function',
    serialize(progress) {
      const { port1, port2 } = new MessageChannel();
      port1.onmessage = ({ data }: MessageEvent<number>) => progress(data);
      ports.set(progress, port1);
      return [port2, [port2]];
    },
    deserialize: (port) => (share) => port.postMessage(share),
  };
  Comlink.transferHandlers.set('progress', handler);
}

/** Nothing more is told: without this ports outlive workers that were ended. */
export function closeProgress(progress: unknown): void {
  if (typeof progress !== 'function') return;
  ports.get(progress as Progress)?.close();
  ports.delete(progress as Progress);
}
