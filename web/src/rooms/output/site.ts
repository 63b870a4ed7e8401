import { SITE_SLOTS, type SiteKind, type SiteSlot } from '@core';
import { unzipSync } from 'fflate';

/** The names of the places on the simulated site. */
const SLOT_NAMES: Readonly<Record<SiteSlot, string>> = {
  header: 'Header',
  hero: 'Hero',
  button: 'Button',
  mail: 'Mail',
};
export const SLOT_OPTIONS = SITE_SLOTS.map((value) => ({ value, label: SLOT_NAMES[value] }));

/** A file in the form that the site can show; null if it cannot. Of a custom element only the picture is sent: the site has the player. */
export async function siteFile(blob: Blob): Promise<{ readonly body: Blob; readonly as: SiteKind } | null> {
  if (blob.type.startsWith('image/')) return { body: blob, as: 'image' };
  if (blob.type.startsWith('video/')) return { body: blob, as: 'video' };
  if (blob.type !== 'application/zip') return null;
  const files = unzipSync(new Uint8Array(await blob.arrayBuffer()));
  const svg = Object.keys(files).find((name) => name.endsWith('.svg'));
  if (!('moving-piece.js' in files) || !svg) return null;
  return { body: new Blob([new Uint8Array(files[svg])], { type: 'image/svg+xml' }), as: 'element' };
}

/**
 * Puts a file on the page.
 * @throws Error with the server's reason
 */
export async function placeOnSite(slot: SiteSlot, blob: Blob, name: string): Promise<void> {
  const file = await siteFile(blob);
  if (!file) throw new Error('The page cannot show this file: it takes pictures, video and the custom element.');
  const response = await fetch(`/api/site/${slot}?as=${file.as}&name=${encodeURIComponent(name)}`, {
    method: 'PUT',
    headers: { 'Content-Type': file.body.type },
    body: file.body,
  });
  if (!response.ok)
    throw new Error(((await response.json()) as { detail?: string }).detail ?? 'The page did not take it.');
}

/** Takes a file off the page; what is not there is not there. */
export async function takeOffSite(slot: SiteSlot): Promise<void> {
  await fetch(`/api/site/${slot}`, { method: 'DELETE' });
}
