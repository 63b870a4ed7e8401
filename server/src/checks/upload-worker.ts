import { parentPort } from 'node:worker_threads';
import { readUpload, type UploadKind } from './read-upload';

export interface UploadTask {
  readonly id: number;
  readonly kind: UploadKind;
  readonly bytes: Uint8Array;
}
export interface UploadAnswer {
  readonly id: number;
  /** Why it cannot be taken; null when it can. */
  readonly refusal: { readonly code?: string; readonly message: string; readonly where?: string } | null;
}

// Runs in a thread of its own: reads one upload after another.
parentPort?.on('message', async ({ id, kind, bytes }: UploadTask) => {
  let refusal: UploadAnswer['refusal'] = null;
  try {
    await readUpload(kind, bytes);
  } catch (error) {
    const { code, message, where } = error as { code?: string; message: string; where?: string };
    refusal = { code, message, where };
  }
  parentPort?.postMessage({ id, refusal } satisfies UploadAnswer);
});
