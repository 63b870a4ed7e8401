import { roundedPolygon } from '../../outline';
import { BOX, handleAt, length, pullSize, type ShapeFrame, type ShapeKindDefinition } from '../shape-kind';

export interface RectangleSource extends ShapeFrame {
  readonly kind: 'rectangle';
  readonly width: number;
  readonly height: number;
  /** Corner radii: top left, top right, bottom right, bottom left. */
  readonly radii: readonly [number, number, number, number];
}

const CORNERS = [
  [-1, -1],
  [1, -1],
  [1, 1],
  [-1, 1],
] as const;
const NAMES = ['top left', 'top right', 'bottom right', 'bottom left'];
const RADIUS_HANDLE = 'radius';

export const rectangle: ShapeKindDefinition<RectangleSource> = {
  parameters: [...BOX, ...NAMES.map((corner, i) => length(`radii.${i}`, `Radius ${corner}`))],
  build({ width, height, radii }) {
    const [w, h] = [width / 2, height / 2];
    return w > 0 && h > 0 ? [roundedPolygon([-w, -h, w, -h, w, h, -w, h], radii)] : [];
  },
  handles({ width, height, radii }) {
    const room = Math.min(width, height) / 2;
    return [
      handleAt('size', 'Size', width / 2, height / 2),
      ...CORNERS.map(([i, j], k) => {
        // A sharp corner's handle stands a little inside, so that it can be taken apart from the size handle.
        const inset = Math.max(Math.min(radii[k], room), 0.12 * room);
        return handleAt(
          `${RADIUS_HANDLE}${k}`,
          `Radius ${NAMES[k]}`,
          i * (width / 2 - inset),
          j * (height / 2 - inset),
        );
      }),
    ];
  },
  pull(shape, id, to) {
    if (id === 'size') return pullSize(shape, to);
    const k = Number(id.slice(RADIUS_HANDLE.length));
    const [i, j] = CORNERS[k];
    const inset = Math.max(0, Math.min(shape.width / 2 - i * to.x, shape.height / 2 - j * to.y));
    const radius = Math.min(inset, Math.min(shape.width, shape.height) / 2);
    const radii = shape.radii.map((old, n) => (n === k || to.even ? radius : old));
    return { ...shape, radii: radii as unknown as RectangleSource['radii'] };
  },
  inBox: ({ frame, width, height }) => ({ kind: 'rectangle', ...frame, width, height, radii: [0, 0, 0, 0] }),
  grown: (shape, k) => ({
    ...shape,
    width: shape.width * k,
    height: shape.height * k,
    radii: shape.radii.map((r) => r * k) as unknown as RectangleSource['radii'],
  }),
  // Round corners would be round no more.
  stretched: (shape, x, y) =>
    shape.radii.every((r) => r === 0) ? { ...shape, width: shape.width * x, height: shape.height * y } : undefined,
};
