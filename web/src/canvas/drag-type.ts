/** A shape that is dragged out of the drawer. */
export const SHAPE_DRAG_TYPE = 'application/x-arcshift-svg';
