/** Places of the page into which an output can be put. */
export const SITE_SLOTS = ['header', 'hero', 'button', 'mail'] as const;
export type SiteSlot = (typeof SITE_SLOTS)[number];

/** How a file is shown by the page. */
export const SITE_KINDS = ['image', 'video', 'element'] as const;
export type SiteKind = (typeof SITE_KINDS)[number];

/** A file in its place. */
export interface PlacedFile {
  readonly slot: SiteSlot;
  readonly kind: SiteKind;
  readonly mediaType: string;
  readonly name: string;
  readonly bytes: Buffer;
}

/** What is on the page now: as long as the server runs, one file a place. */
export class PlacedFiles {
  private readonly placed = new Map<SiteSlot, PlacedFile>();

  put(placement: PlacedFile): void {
    this.placed.set(placement.slot, placement);
  }

  /** Takes a file off the page; tells whether there was one. */
  remove(slot: SiteSlot): boolean {
    return this.placed.delete(slot);
  }

  find(slot: string): PlacedFile | undefined {
    return this.placed.get(slot as SiteSlot);
  }

  all(): readonly PlacedFile[] {
    return [...this.placed.values()];
  }
}
