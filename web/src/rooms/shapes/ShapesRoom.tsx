import { Canvas } from '../../canvas/Canvas';
import { usePlaying } from '../../context';
import { Details } from '../../panels';
import { RoomColumns } from '../RoomColumns';
import { ArrivalBar } from './ArrivalBar';
import { DrawnBar } from './DrawnBar';
import { EmptyCanvas } from './EmptyCanvas';
import { FigureList } from './FigureList';
import { MovingBar } from './MovingBar';
import { ToolRow } from './ToolRow';
import './shapes.scss';

/** The drawing room: figures at the left, tools over the canvas, the details of what is chosen at the right. */
export function ShapesRoom() {
  return (
    <RoomColumns left={<FigureList />} right={<Details />}>
      <div className="room-picture">
        <ToolRow />
        <Bars />
        <Canvas drawing whenEmpty={<EmptyCanvas />} />
      </div>
    </RoomColumns>
  );
}

/** What arrived or was drawn, and what else it could be; while something plays nothing lies on the picture. */
function Bars() {
  const playing = usePlaying();
  if (playing) return null;
  return (
    <div className="arrivals">
      <ArrivalBar />
      <MovingBar />
      <DrawnBar />
    </div>
  );
}
