import { Canvas } from '../../canvas/Canvas';
import { Details } from '../../panels';
import { useAppSelector } from '../../state';
import { ArrivalBar } from './ArrivalBar';
import { FigureList } from './FigureList';
import { ToolRow } from './ToolRow';
import './shapes.scss';

/** The drawing room: figures at the left, tools over the canvas, the details of what is chosen at the right. */
export function ShapesRoom() {
  const { left, right } = useAppSelector((state) => state.drawing);
  return (
    <>
      {left && <FigureList />}
      <div className="room-picture">
        <ToolRow />
        <ArrivalBar />
        <Canvas drawing />
      </div>
      {right && <Details />}
    </>
  );
}
