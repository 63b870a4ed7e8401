export * from './ActionButton';
export { Choice, SelectField } from './Choice';
export { ColourField } from './ColourField';
export { IconButton } from './IconButton';
export { LineChart } from './LineChart';
export { NumberField } from './NumberField';
export { TextField } from './TextField';
export { VERDICT } from './verdict';
