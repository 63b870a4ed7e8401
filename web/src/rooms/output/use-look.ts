import type { OutputOptions, Piece } from '@core';
import { useEffect, useState } from 'react';
import { useEngines } from '../../context';
import { type OutputForm, outputFileName } from '../../outputs';

/** What is known of a file before anybody asked for it. */
export type Look =
  | { readonly state: 'looking'; readonly share: number }
  | {
      readonly state: 'made';
      readonly url: string;
      readonly blob: Blob;
      readonly name: string;
      readonly isText: boolean;
    }
  | { readonly state: 'estimated'; readonly bytes: number }
  | { readonly state: 'failed'; readonly text: string }
  | { readonly state: 'stopped' }
  | { readonly state: 'nothing' };

/** Settings rest this long before they are looked at, ms. */
const REST_MS = 250;
/** A picture may still be loading from its address when one leaves, ms. */
const LOADING_MS = 5000;
/** Forms that are quick to make are shown as they are; of the others the size is estimated. */
const SLOW = ['png-sequence', 'sprite-sheet', 'apng', 'gif', 'mp4', 'webm'];

/**
 * Makes the file of quick forms while settings change, so that it is seen before it is asked for, and estimates the size of slow ones. `attempt`: another number
 * looks again; `refused`: nothing is looked at.
 */
export function useLook(
  piece: Piece | null,
  form: OutputForm,
  options: OutputOptions,
  refused: boolean,
  attempt: number,
): { readonly look: Look; readonly stop: () => void } {
  const engines = useEngines();
  const [look, setLook] = useState<Look>({ state: 'looking', share: 0 });
  // biome-ignore lint/correctness/useExhaustiveDependencies: another attempt looks again
  useEffect(() => {
    if (!piece || piece.figureOrder.length === 0 || refused) {
      setLook({ state: 'nothing' });
      return;
    }
    let outdated = false;
    let url = '';
    setLook({ state: 'looking', share: 0 });
    const failed = (error: Error): void => {
      if (!outdated && error.name !== 'EngineCancelled') setLook({ state: 'failed', text: error.message });
    };
    const tell = (share: number): void => {
      if (!outdated) setLook((before) => (before.state === 'looking' ? { state: 'looking', share } : before));
    };
    const timer = setTimeout(() => {
      if (SLOW.includes(form.id)) {
        engines.looks.estimateOutput(form.id, piece, options).then((bytes) => {
          if (!outdated) setLook({ state: 'estimated', bytes });
        }, failed);
        return;
      }
      engines.looks.makeOutput(form.id, piece, options, false, tell).then(({ blob, extension = form.extension }) => {
        if (outdated) return;
        url = URL.createObjectURL(blob);
        const isText = extension !== 'zip' && !blob.type.startsWith('image/png');
        setLook({ state: 'made', url, blob, name: outputFileName(extension, piece.name), isText });
      }, failed);
    }, REST_MS);
    return () => {
      outdated = true;
      clearTimeout(timer);
      engines.looks.cancel();
      if (url) setTimeout(() => URL.revokeObjectURL(url), LOADING_MS);
    };
  }, [piece, form, options, refused, engines, attempt]);
  const stop = (): void => {
    engines.looks.cancel();
    setLook({ state: 'stopped' });
  };
  return { look, stop };
}
