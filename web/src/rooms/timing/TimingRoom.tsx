import { useRef, useState } from 'react';
import { Group, Panel, Separator, usePanelRef } from 'react-resizable-panels';
import { Canvas } from '../../canvas/Canvas';
import { Details } from '../../panels';
import { remember, remembered, selectPiece, useAppSelector } from '../../state';
import { RoomColumns } from '../RoomColumns';
import { KeyDetails } from './KeyDetails';
import { LaneDetails } from './LaneDetails';
import { LaneSheet } from './LaneSheet';
import { MotionPathLayer } from './MotionPathLayer';
import { PointPathsLayer } from './PointPathsLayer';
import { TimingTools } from './TimingTools';
import './timing.scss';

/** The lanes have no more of the room's height than this by themselves, %. */
const MOST_SHARE = 40;
/** Ground below the last lane, on which the bead is moved too, px. */
const GROUND_PX = 28;

/** The room of time: the picture with its details above, the lanes of all figures below, against the time of the rail. */
export function TimingRoom() {
  const piece = useAppSelector(selectPiece);
  const keys = useAppSelector((state) => state.session.keys);
  const lanes = usePanelRef();
  const [shareAtFirst] = useState(() => remembered('lanesShare'));
  const given = useRef(shareAtFirst);
  const fitted = useRef(false);
  if (!piece) return null;
  // As high as the lanes need until their edge is dragged; what they once had they keep, so that folding a lane moves none from under the pointer.
  const fit = (needed: number): void => {
    const panel = lanes.current;
    if (!panel || given.current !== null) return;
    const { inPixels, asPercentage } = panel.getSize();
    const wanted = Math.min(needed + GROUND_PX, (MOST_SHARE * inPixels) / asPercentage);
    if (fitted.current && wanted <= inPixels) return;
    fitted.current = true;
    panel.resize(wanted);
  };
  const known = keys.filter(({ lane, key }) => piece.lanes[lane]?.keys.some(({ id }) => id === key));
  const own = keys.find(({ lane, key }) => key === null && piece.lanes[lane]);
  const details =
    known.length > 0 ? (
      <KeyDetails piece={piece} keys={known} />
    ) : own ? (
      <LaneDetails piece={piece} lane={piece.lanes[own.lane]} />
    ) : (
      <Details />
    );
  return (
    <Group
      className="timing-room"
      orientation="vertical"
      onLayoutChanged={(layout, { isUserInteraction }) => {
        if (!isUserInteraction) return;
        given.current = Math.round(layout.lanes ?? MOST_SHARE);
        remember('lanesShare', given.current);
      }}
    >
      <Panel id="picture-part" minSize="30%" className="timing-picture">
        <RoomColumns right={details}>
          <div className="room-picture">
            <TimingTools />
            <Canvas
              onion
              over={
                <>
                  <PointPathsLayer piece={piece} />
                  <MotionPathLayer piece={piece} />
                </>
              }
            />
          </div>
        </RoomColumns>
      </Panel>
      <Separator className="timing-edge" aria-label="Height of the lanes" />
      <Panel
        id="lanes"
        panelRef={lanes}
        defaultSize={`${shareAtFirst ?? MOST_SHARE}%`}
        minSize={90}
        className="timing-lanes"
      >
        <LaneSheet piece={piece} onHeight={fit} />
      </Panel>
    </Group>
  );
}
