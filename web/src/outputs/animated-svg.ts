import { writeAnimatedSvg } from '@core';
import type { OutputForm } from './output-form';

export const animatedSvg: OutputForm = {
  id: 'animated-svg',
  label: 'Animated SVG',
  about: 'One file for pages and as an image. It plays by itself, needs no script, and stays sharp at every size.',
  extension: 'svg',
  type: 'image/svg+xml',
  fields: [
    {
      key: 'digits',
      label: 'Decimals of coordinates',
      answers: [
        { value: '1', label: '1', hint: 'Smallest file; off by at most 0.15 px' },
        { value: '2', label: '2', hint: 'Off by at most 0.1 px' },
        { value: '3', label: '3', hint: 'For files shown very large' },
      ],
      otherwise: '2',
    },
  ],
  async make({ piece, compiled }, { digits }, onProgress, signal) {
    signal.throwIfAborted();
    const text = writeAnimatedSvg(compiled, { digits: Number(digits), title: piece.name });
    onProgress(1);
    return new Blob([text], { type: 'image/svg+xml' });
  },
};
