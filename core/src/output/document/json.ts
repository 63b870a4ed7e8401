/** JSON of unknown kind: every field is looked at before it is used. */
export type Json = Readonly<Record<string, unknown>>;

export const isObject = (value: unknown): value is Json =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
export const objects = (value: unknown): Json[] => (Array.isArray(value) ? value.filter(isObject) : []);
export const number = (value: unknown, otherwise = 0): number =>
  typeof value === 'number' && Number.isFinite(value) ? value : otherwise;
export const scalar = (value: unknown): number => (Array.isArray(value) ? number(value[0]) : number(value));
export const numbers = (value: unknown): number[] =>
  Array.isArray(value) ? value.map((each) => number(each)) : [number(value)];
