export { DrawerPage } from './DrawerPage';
export { DrawerShapes } from './DrawerShapes';
export { pendingShape } from './pending-shape';
export { SHIPPED_SHAPES, shippedSvg } from './shipped-shapes';
