import type { FormId } from '@core';

/** What files are, in the order in which they are offered. */
export const FORM_GROUPS = ['For the web', 'For engineers', 'One picture', 'Image sequences', 'Video'] as const;

/** The group of each form. A new form has one, or types fail. */
export const GROUP_OF_FORM: Readonly<Record<FormId, (typeof FORM_GROUPS)[number]>> = {
  'animated-svg': 'For the web',
  css: 'For the web',
  lottie: 'For the web',
  element: 'For the web',
  'clip-path': 'For the web',
  module: 'For engineers',
  'path-data': 'For engineers',
  'still-svg': 'One picture',
  'still-png': 'One picture',
  gif: 'Image sequences',
  apng: 'Image sequences',
  'png-sequence': 'Image sequences',
  'sprite-sheet': 'Image sequences',
  mp4: 'Video',
  webm: 'Video',
};
