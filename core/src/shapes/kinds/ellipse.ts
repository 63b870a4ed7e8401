import { ellipseContour } from '../../outline';
import { BOX, handleAt, pullSize, type ShapeFrame, type ShapeKindDefinition } from '../shape-kind';

export interface EllipseSource extends ShapeFrame {
  readonly kind: 'ellipse';
  readonly width: number;
  readonly height: number;
}

export const ellipse: ShapeKindDefinition<EllipseSource> = {
  parameters: BOX,
  build: ({ width, height }) => (width > 0 && height > 0 ? [ellipseContour(0, 0, width / 2, height / 2)] : []),
  handles: ({ width, height }) => [
    handleAt('width', 'Width', width / 2, 0),
    handleAt('height', 'Height', 0, height / 2),
    handleAt('size', 'Size', width / 2, height / 2),
  ],
  pull(shape, id, to) {
    if (id === 'size') return pullSize(shape, to);
    return id === 'width' ? { ...shape, width: 2 * Math.abs(to.x) } : { ...shape, height: 2 * Math.abs(to.y) };
  },
  inBox: ({ frame, width, height }) => ({ kind: 'ellipse', ...frame, width, height }),
  grown: (shape, k) => ({ ...shape, width: shape.width * k, height: shape.height * k }),
  stretched: (shape, x, y) => ({ ...shape, width: shape.width * x, height: shape.height * y }),
};
