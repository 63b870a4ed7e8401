import { Group, Panel, Separator } from 'react-resizable-panels';
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

/** The room of time: the picture with its details above, the lanes of all figures below, against the time of the rail. */
export function TimingRoom() {
  const piece = useAppSelector(selectPiece);
  const keys = useAppSelector((state) => state.session.keys);
  if (!piece) return null;
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
        if (isUserInteraction) remember('lanesShare', Math.round(layout.lanes ?? 40));
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
      <Panel id="lanes" defaultSize={`${remembered('lanesShare')}%`} minSize={90} className="timing-lanes">
        {Object.keys(piece.lanes).length === 0 && (
          <p className="lane-empty" role="note">
            Nothing moves as a whole yet. Move, turn or scale a pose in Shapes; add a lane to a figure here; or press
            Play and change the holds and shifts on the rail.
          </p>
        )}
        <LaneSheet piece={piece} />
      </Panel>
    </Group>
  );
}
