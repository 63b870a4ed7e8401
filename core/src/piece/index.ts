export { adjustShape, type PartAtStop } from './adjust-shape';
export * from './anchors';
export { APPEARANCES, type Appearance, appearanceOf, keepAppearances, setAppearance } from './appear';
export * from './arrange';
export * from './arrive';
export { checkEasing } from './check-easing';
export * from './check-piece';
export * from './clip-shapes';
export { canClip, clipChain } from './clips';
export * from './decisions';
export * from './defaults';
export { differencesOf } from './differences';
export { duplicateFigures } from './duplicate-figures';
export * from './edit';
export * from './edit-chain';
export {
  addFreeKey,
  addLane,
  addWindUp,
  changeKey,
  driveLane,
  isDriven,
  keepLanes,
  placeOfKey,
  removeKeySet,
  removeKeys,
  setLaneAtStop,
} from './edit-lanes';
export * from './edit-outline';
export * from './exchange';
export { titleOfFile } from './file-title';
export { canFollow, chainText, followCycle, type LaneName } from './follow';
export * from './from-svg';
export * from './geometry';
export * from './keep-places';
export * from './lanes';
export * from './letter-boxes';
export { keepLetterPlaces } from './letter-places';
export { SHORTEST_SECONDS } from './limits';
export { mendGaps } from './mend-gaps';
export { migrationNotes } from './migration-notes';
export { posterSeconds, secondsOfMoment, stretchOf } from './moments';
export { fixMiddle, middleOf, moveAlongOutline } from './motion-path';
export { canHave, ownValue, poseCanHave, propertiesOf } from './own-values';
export * from './placement';
export * from './rail';
export { isTooShort, readingTime } from './reading';
export * from './records';
export * from './retime';
export { SET_OFF_ORDERS, type SetOffOrder, setOff } from './set-off';
export { putValuesAtStop, type StopValues, valuesAtStop } from './stop-values';
export * from './storable';
