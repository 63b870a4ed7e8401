import { Canvas } from '../../canvas/Canvas';
import { Details } from '../../panels';
import { ArrivalBar } from './ArrivalBar';

/** The canvas with the piece at the bead, and the details of what is selected. */
export function ShapesRoom() {
  return (
    <>
      <div className="room-picture">
        <ArrivalBar />
        <Canvas />
      </div>
      <Details />
    </>
  );
}
