/** Whoever shows time and can be scrolled and zoomed. */
interface TimeOwner {
  /** Zooms about a place, px from the left of what is in sight. */
  zoomBy(factor: number, at?: number): void;
  scrollBy(px: number): void;
}

/** The stretch of time in sight, which rail and lanes have in common: px for each second, how wide all of it is, and how far it is scrolled. */
export class TimeView {
  scale = 0;
  width = 0;
  scroll = 0;
  private owner: TimeOwner | null = null;
  private readonly scaled = new Set<() => void>();
  private readonly moved = new Set<() => void>();

  /** Called by what owns the view; returns how to give it up. */
  own(owner: TimeOwner): () => void {
    this.owner = owner;
    return () => {
      if (this.owner === owner) this.owner = null;
    };
  }

  show(scale: number, width: number): void {
    if (scale === this.scale && width === this.width) return;
    this.scale = scale;
    this.width = width;
    for (const listener of this.scaled) listener();
  }

  scrolled(scroll: number): void {
    if (scroll === this.scroll) return;
    this.scroll = scroll;
    for (const listener of this.moved) listener();
  }

  zoomBy(factor: number, at?: number): void {
    this.owner?.zoomBy(factor, at);
  }

  scrollBy(px: number): void {
    this.owner?.scrollBy(px);
  }

  /** Told of another scale or width. */
  readonly onScale = (listener: () => void): (() => void) => {
    this.scaled.add(listener);
    return () => void this.scaled.delete(listener);
  };

  /** Told of scrolling, at the display's rate. */
  readonly onScroll = (listener: () => void): (() => void) => {
    this.moved.add(listener);
    return () => void this.moved.delete(listener);
  };

  readonly scaleNow = (): number => this.scale;
}
