import { useOpenPiece } from '../../context';
import { DrawerShapes } from '../../drawer';

/** The drawer beside the canvas: shapes are dragged out of it, or added by their button. */
export function DrawerColumn() {
  const { takeSvg } = useOpenPiece();
  return <DrawerShapes addLabel="Add to this piece" onAdd={takeSvg} />;
}
