import type { View } from '@core';

const MIN_ZOOM = 0.05;
const MAX_ZOOM = 32;
const MARGIN = 28;
/** Kept free under the canvas, px: the bar of the tool at hand stands there. */
const FOOT = 52;

/** How the canvas lies in its pane: fitted until somebody zooms or moves it. */
export class Viewport {
  private pane = { width: 0, height: 0 };
  private canvas = { width: 1, height: 1 };
  private current: View = { x: 0, y: 0, zoom: 1 };
  private fitted = true;
  private readonly listeners = new Set<(view: View) => void>();

  get view(): View {
    return this.current;
  }

  setPane(width: number, height: number): void {
    this.pane = { width, height };
    if (this.fitted) this.fit();
  }

  setCanvas(width: number, height: number): void {
    if (width === this.canvas.width && height === this.canvas.height) return;
    this.canvas = { width, height };
    if (this.fitted) this.fit();
  }

  fit(): void {
    const { width, height } = this.canvas;
    const zoom = Math.max(
      MIN_ZOOM,
      Math.min((this.pane.width - 2 * MARGIN) / width, (this.pane.height - MARGIN - FOOT) / height),
    );
    const y = MARGIN + (this.pane.height - MARGIN - FOOT - height * zoom) / 2;
    this.set({ zoom, x: (this.pane.width - width * zoom) / 2, y });
    this.fitted = true;
  }

  /** Shows a box of the canvas (px) as large as the pane allows. */
  show(box: { minX: number; minY: number; maxX: number; maxY: number }): void {
    const width = Math.max(1e-3, box.maxX - box.minX);
    const height = Math.max(1e-3, box.maxY - box.minY);
    const room = 2 * MARGIN;
    const zoom = Math.min(
      MAX_ZOOM,
      Math.max(MIN_ZOOM, Math.min((this.pane.width - room) / width, (this.pane.height - room) / height)),
    );
    this.set({
      zoom,
      x: this.pane.width / 2 - ((box.minX + box.maxX) / 2) * zoom,
      y: this.pane.height / 2 - ((box.minY + box.maxY) / 2) * zoom,
    });
    this.fitted = false;
  }

  /** One px of the piece for one of the screen, about the middle of the pane. */
  actualSize(): void {
    this.zoomBy(1 / this.current.zoom);
  }

  /** Zooms by a factor about a point of the pane (default: its middle). */
  zoomBy(factor: number, x = this.pane.width / 2, y = this.pane.height / 2): void {
    const zoom = Math.min(MAX_ZOOM, Math.max(MIN_ZOOM, this.current.zoom * factor));
    const k = zoom / this.current.zoom;
    this.set({ zoom, x: x - (x - this.current.x) * k, y: y - (y - this.current.y) * k });
    this.fitted = false;
  }

  moveBy(dx: number, dy: number): void {
    this.set({ ...this.current, x: this.current.x + dx, y: this.current.y + dy });
    this.fitted = false;
  }

  onChange(listener: (view: View) => void): () => void {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  }

  private set(view: View): void {
    this.current = view;
    for (const listener of this.listeners) listener(view);
  }
}
