import type { Piece } from '@core';
import { Group, Panel, Separator } from 'react-resizable-panels';
import { Canvas } from '../../canvas/Canvas';
import { Details } from '../../panels';
import { selectPiece, useAppSelector } from '../../state';
import { RoomColumns } from '../RoomColumns';
import { KeyDetails } from './KeyDetails';
import { LaneDetails } from './LaneDetails';
import { LaneSheet } from './LaneSheet';
import { MotionPathLayer } from './MotionPathLayer';
import { PointPathsLayer } from './PointPathsLayer';
import { TimingTools } from './TimingTools';
import { useLanesHeight } from './use-lanes-height';
import './timing.scss';

/** The room of time: the picture with its details above, the lanes of all figures below, against the time of the rail. */
export function TimingRoom() {
  const piece = useAppSelector(selectPiece);
  return piece && <RoomOf piece={piece} />;
}

function RoomOf({ piece }: { readonly piece: Piece }) {
  const keys = useAppSelector((state) => state.session.keys);
  const height = useLanesHeight();
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
      elementRef={height.room}
      orientation="vertical"
      onLayoutChanged={(layout, { isUserInteraction }) => {
        if (isUserInteraction && layout.lanes) height.given(Math.round(layout.lanes));
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
        panelRef={height.panel}
        defaultSize={`${height.shareAtFirst}%`}
        minSize={90}
        className="timing-lanes"
      >
        <LaneSheet piece={piece} onHeight={height.needs} />
      </Panel>
    </Group>
  );
}
