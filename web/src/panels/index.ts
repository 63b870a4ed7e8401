export { Details } from './Details';
export { CENTRE_OPTIONS, FIT_OPTIONS, fitTarget, RuleFields } from './RuleFields';
