export { DrawerPage } from './DrawerPage';
export { DrawerShapes } from './DrawerShapes';
export { pendingShape } from './pending-shape';
