export { DrawerPage } from './DrawerPage';
export { DrawerShapes } from './DrawerShapes';
export { pendingShape } from './pending-shape';
export { FIRST_SHAPES, SHIPPED_SHAPES, shippedSvg } from './shipped-shapes';
