/** From this version on a turn by hand is the value of a lane, and spins on its way. */
const SPINS_FROM = 6;

type Row = Readonly<Record<string, unknown>>;
const rowOf = (value: unknown): Row => (typeof value === 'object' && value !== null ? (value as Row) : {});
const listOf = (value: unknown): readonly unknown[] => (Array.isArray(value) ? value : []);

/**
 * What of a piece looks different since it was brought up to date, in sentences; nothing where it looks as it did. `data` is the piece as it was stored, of any
 * version, whole or not: nothing is checked here.
 */
export function migrationNotes(data: unknown): string[] {
  const { version, figures, poses } = rowOf(data);
  if (!(typeof version === 'number' && version < SPINS_FROM)) return [];
  const turnOf = (pose: unknown): number =>
    Number(rowOf(rowOf(rowOf(poses)[String(pose)]).placement).rotation ?? 0) || 0;
  const turned = Object.values(rowOf(figures))
    .map(rowOf)
    .filter(({ poses: own }) => new Set(listOf(own).map(turnOf)).size > 1)
    .map(({ name }) => `“${String(name).slice(0, 60)}”`);
  if (turned.length === 0) return [];
  const names = `${turned.slice(0, 3).join(', ')}${turned.length > 3 ? ` and ${turned.length - 3} more` : ''}`;
  return [
    `${names} ${turned.length === 1 ? 'spins' : 'spin'} from pose to pose now: an older version turned outlines in a straight line. The poses look as they did.`,
  ];
}
