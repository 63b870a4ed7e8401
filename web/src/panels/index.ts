export { CheckedColour } from './CheckedColour';
export { Details } from './Details';
export { EasingEditor } from './easing/EasingEditor';
export { MatchDetails } from './match/MatchDetails';
export { CENTRE_OPTIONS, FIT_OPTIONS, fitTarget, RuleFields } from './RuleFields';
