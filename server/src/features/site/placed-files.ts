import type { SiteKind, SiteSlot } from '@core';

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
