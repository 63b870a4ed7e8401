import type { FormId, OutputOptions } from '@core';

/** What files are for, and what does for it. */
export interface Purpose {
  readonly id: string;
  readonly label: string;
  readonly hint: string;
  /** The first is what is chosen; all together are everything for it. */
  readonly choices: readonly { readonly form: FormId; readonly options: OutputOptions; readonly name: string }[];
}

export const PURPOSES: readonly Purpose[] = [
  {
    id: 'site',
    label: 'Site',
    hint: 'A picture that plays on pages, a still one as its poster, and a GIF for mail',
    choices: [
      { form: 'animated-svg', options: { calm: 'yes' }, name: 'picture' },
      { form: 'still-svg', options: {}, name: 'poster' },
      { form: 'gif', options: { width: '550', fps: '12' }, name: 'mail' },
    ],
  },
  {
    id: 'app',
    label: 'App',
    hint: 'For players in apps, for engineers, and a still picture',
    choices: [
      { form: 'lottie', options: {}, name: 'player' },
      { form: 'module', options: {}, name: 'module' },
      { form: 'still-png', options: { ground: 'none' }, name: 'still' },
    ],
  },
  {
    id: 'film',
    label: 'Film',
    hint: 'Video for editing, and every frame with transparency',
    choices: [
      { form: 'mp4', options: { quality: 'very-high', keys: 'yes' }, name: 'video' },
      { form: 'png-sequence', options: { ground: 'none' }, name: 'frames' },
    ],
  },
  {
    id: 'chat',
    label: 'Chat',
    hint: 'Small enough to be sent: a GIF of at most 1 MB, and a video',
    choices: [
      { form: 'gif', options: { width: '480', fps: '15', limit: '1000' }, name: 'chat' },
      { form: 'mp4', options: { width: '720', quality: 'medium', loops: '2' }, name: 'video' },
    ],
  },
];
