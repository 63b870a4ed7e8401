import { type RefObject, useEffect, useEffectEvent, useRef, useState } from 'react';
import { type PanelImperativeHandle, usePanelRef } from 'react-resizable-panels';
import { remember, remembered } from '../../state';

/** The lanes have no more of the room's height than this by themselves, %. */
const MOST_SHARE = 40;
/** Ground below the last lane, on which the bead is moved too, px. */
const GROUND_PX = 28;

export interface LanesHeight {
  readonly room: RefObject<HTMLDivElement | null>;
  readonly panel: RefObject<PanelImperativeHandle | null>;
  /** Share of the room at first, %. */
  readonly shareAtFirst: number;
  /** Takes how high all lanes are together, px. */
  needs(height: number): void;
  /** Takes the share that the user gave the lanes by dragging their edge, %. */
  given(share: number): void;
}

/**
 * How much of the room's height the lanes have: as much as they need, until their edge is dragged; that is remembered. What they once had they keep
 * while the room stays as it is, so that folding a lane moves none from under the pointer.
 */
export function useLanesHeight(): LanesHeight {
  const panel = usePanelRef();
  const room = useRef<HTMLDivElement>(null);
  const [dragged, setDragged] = useState(() => remembered('lanesShare'));
  const [shareAtFirst] = useState(dragged ?? MOST_SHARE);
  const needed = useRef<number>(undefined);
  const settle = (mayShrink: boolean): void => {
    const height = room.current?.clientHeight ?? 0;
    if (!panel.current || height === 0 || needed.current === undefined || dragged !== null) return;
    const wanted = Math.min(needed.current + GROUND_PX, (MOST_SHARE / 100) * height);
    if (mayShrink || wanted > panel.current.getSize().inPixels) panel.current.resize(wanted);
  };
  const settleInRoom = useEffectEvent(() => settle(true));
  useEffect(() => {
    if (!room.current) return;
    const observer = new ResizeObserver(() => settleInRoom());
    observer.observe(room.current);
    return () => observer.disconnect();
  }, []);
  return {
    room,
    panel,
    shareAtFirst,
    needs: (height) => {
      const first = needed.current === undefined;
      needed.current = height;
      settle(first);
    },
    given: (share) => {
      setDragged(share);
      remember('lanesShare', share);
    },
  };
}
