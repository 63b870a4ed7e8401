import { FileDown, PencilLine, Shapes, Type } from 'lucide-react';
import { Button } from 'react-bootstrap';
import { useOpenPiece } from '../../context';
import { FIRST_SHAPES, shippedSvg } from '../../drawer';
import { drawingActions, useAppDispatch } from '../../state';

/** What an empty piece says: what to do first. */
export function EmptyCanvas() {
  const { chooseFiles, takeSvg } = useOpenPiece();
  const dispatch = useAppDispatch();
  const openDrawer = (): void =>
    void dispatch(drawingActions.changed({ column: 'drawer', left: true, firstColumn: 'left' }));
  return (
    <div className="canvas-empty">
      <svg viewBox="0 0 220 84" width="220" height="84" aria-hidden="true">
        <g fill="none" stroke="var(--line-strong)" strokeWidth="2" strokeDasharray="5 4">
          <rect x="6" y="12" width="56" height="56" rx="4" />
          <circle cx="186" cy="40" r="28" />
        </g>
        <path
          d="M72 52C100 52 116 26 148 26"
          fill="none"
          stroke="var(--accent)"
          strokeWidth="3"
          strokeLinecap="round"
        />
        <circle cx="109" cy="39.5" r="6" fill="var(--accent)" />
      </svg>
      <h2>Drop two or more SVG files here</h2>
      <p>Each becomes a pose on the rail; what happens between them is found at once. Paste works too.</p>
      <Button variant="primary" onClick={() => chooseFiles()}>
        <FileDown size={16} aria-hidden="true" /> Choose SVG files
      </Button>
      <p>Or begin with a shape of the drawer, or one of your own:</p>
      <div className="canvas-empty-shapes" role="group" aria-label="Shapes of the drawer">
        {FIRST_SHAPES.map((shape) => (
          <button
            key={shape.name}
            type="button"
            title={`${shape.name}${shape.source ? ', adjustable' : ''}`}
            aria-label={`Begin with ${shape.name}`}
            onClick={() => {
              takeSvg(shape.name, shippedSvg(shape));
              // The second one is found where the first came from.
              openDrawer();
            }}
          >
            <img src={`data:image/svg+xml;utf8,${encodeURIComponent(shippedSvg(shape))}`} alt="" draggable={false} />
          </button>
        ))}
        <button type="button" className="canvas-empty-more" onClick={openDrawer}>
          All …
        </button>
      </div>
      <div className="canvas-empty-ways">
        <Button variant="link" className="outlined" onClick={() => dispatch(drawingActions.shapeChosen('ellipse'))}>
          <Shapes size={16} aria-hidden="true" /> Start from a shape
        </Button>
        <Button variant="link" className="outlined" onClick={() => dispatch(drawingActions.toolChosen('draw'))}>
          <PencilLine size={16} aria-hidden="true" /> Draw
        </Button>
        <Button variant="link" className="outlined" onClick={() => dispatch(drawingActions.toolChosen('text'))}>
          <Type size={16} aria-hidden="true" /> Type
        </Button>
      </div>
    </div>
  );
}
