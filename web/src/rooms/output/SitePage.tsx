import type { SiteSlot } from '@core';
import { useState } from 'react';
import { Choice, RangeField } from '../../ui';
import { SLOT_OPTIONS } from './site';

/** Widths of windows in which a page is looked at, CSS px. */
const [NARROW, WIDE] = [320, 1280];

/** The ferry line's page with the file in its place, as visitors see it: narrow or wide, light or dark, with less motion. */
export function SitePage({
  fileName,
  slot,
  version,
  onSlot,
  onTakeOff,
  onClose,
}: {
  readonly fileName: string;
  readonly slot: SiteSlot;
  /** Another number loads the page again. */
  readonly version: number;
  readonly onSlot: (slot: SiteSlot) => void;
  readonly onTakeOff: () => void;
  readonly onClose: () => void;
}) {
  const [width, setWidth] = useState(720);
  const [dark, setDark] = useState(false);
  const [less, setLess] = useState(false);
  const query = `theme=${dark ? 'dark' : 'light'}&motion=${less ? 'less' : 'all'}&v=${version}`;
  const frameRef = (frame: HTMLIFrameElement | null): void => {
    if (frame) frame.style.width = `${width}px`;
  };
  return (
    <section className="output-site" aria-label="The file on a page">
      <header>
        <h2>{fileName} on a page</h2>
        <button type="button" className="btn outlined btn-sm" onClick={onTakeOff}>
          Take it off
        </button>
        <button type="button" className="btn outlined btn-sm" onClick={onClose}>
          Close the page
        </button>
      </header>
      <div className="output-site-looks">
        <Choice label="Place" value={slot} options={SLOT_OPTIONS} onChange={onSlot} />
        <RangeField label="Width of the window" value={width} min={NARROW} max={WIDE} onChange={setWidth} />
        <span className="numbers soft">{width} px</span>
        <label className="form-check output-switch">
          <input
            type="checkbox"
            className="form-check-input"
            checked={dark}
            onChange={(event) => setDark(event.target.checked)}
          />
          Dark
        </label>
        <label className="form-check output-switch">
          <input
            type="checkbox"
            className="form-check-input"
            checked={less}
            onChange={(event) => setLess(event.target.checked)}
          />
          Reduce motion
        </label>
      </div>
      <div className="output-site-frame">
        <iframe ref={frameRef} src={`/site/?${query}`} title="Lantern Quay Ferries" />
      </div>
    </section>
  );
}
