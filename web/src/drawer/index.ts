export { DrawerPage } from './DrawerPage';
export { DrawerShapes } from './DrawerShapes';
export { FIRST_SHAPES, SHIPPED_SHAPES, shippedSvg } from './shipped-shapes';
