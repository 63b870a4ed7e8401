export { Details } from './Details';
export { CENTRE_OPTIONS, FIT_OPTIONS } from './PoseDetails';
