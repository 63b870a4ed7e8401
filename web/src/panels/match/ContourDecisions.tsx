import type { Piece, PoseShiftPlan, Shift } from '@core';
import type { ReactNode } from 'react';
import { type LitContour, type MatchEditing, type MatchView, releaseContour, setPair, setWipe } from '../../editor';
import type { AppStore } from '../../state';
import { SelectField } from '../../ui';
import { Decided } from './Decided';
import { isJoined, pairedNow } from './planned-contours';

/** Ways of a contour that has no partner, beside growing from a point or shrinking to one; degrees clockwise. */
const WIPES = [
  { angle: 0, label: 'to the right' },
  { angle: 90, label: 'downwards' },
  { angle: 180, label: 'to the left' },
  { angle: 270, label: 'upwards' },
] as const;

/** Which contour becomes which, and how an unpaired one comes or goes; nothing where there is nothing to choose. */
export function ContourDecisions({
  editing,
  lit,
  store,
  piece,
  shift,
  plan,
  onBack,
}: {
  readonly editing: MatchEditing;
  readonly lit: MatchView['lit'];
  readonly store: AppStore;
  readonly piece: Piece;
  readonly shift: Shift;
  readonly plan: PoseShiftPlan | undefined;
  readonly onBack: () => void;
}) {
  const own = shift.match.pairs;
  const contoursOf = (poseId: string): string[] =>
    piece.poses[poseId].parts.flatMap((id) => piece.parts[id].contours.map((contour) => contour.id));
  const first = contoursOf(shift.from);
  const second = contoursOf(shift.to);
  if (first.length < 2 && second.length < 2) return null;
  const now = pairedNow(piece, plan);
  const value = (id: string, side: 'a' | 'b'): string => {
    const said = own.find((pair) => pair[side] === id);
    if (!said) return 'auto';
    const wipe = shift.match.wipes.find(({ contour }) => contour === id);
    const partner = side === 'a' ? said.b : said.a;
    return partner ?? (wipe ? `wipe ${wipe.angle}` : 'alone');
  };
  // A contour that is cut becomes several.
  const name = (ids: readonly string[] = [], joined = false): string => {
    const numbers = ids.map((id) => second.indexOf(id) + 1).sort((p, q) => p - q);
    if (numbers.length === 0) return joined ? 'by slit' : 'alone';
    return numbers.length === 1 ? `contour ${numbers[0]}` : numbers.join(' and ');
  };
  const partners = new Set([...now.values()].flat());
  // Of the second outline those are listed that come alone, or were said to.
  const coming = second
    .map((id, j) => ({ id, j }))
    .filter(
      ({ id }) =>
        own.some(({ a, b }) => a === null && b === id) ||
        (plan && !partners.has(id) && !isJoined(piece, plan, id, 'b')),
    );
  const choose = (id: string, side: 'a' | 'b', choice: string): void => {
    const alone = side === 'a' ? { a: id, b: null } : { a: null, b: id };
    if (choice === 'auto') releaseContour(store, shift.id, id);
    else if (choice === 'alone') setPair(store, shift.id, alone);
    else if (choice.startsWith('wipe ')) setWipe(store, shift.id, alone, Number(choice.slice(5)));
    else setPair(store, shift.id, { a: id, b: choice });
  };
  return (
    <Decided title="Contours" own={own.length > 0 || shift.match.wipes.length > 0} onBack={onBack}>
      {first.map((id, i) => (
        <PointedAt key={id} editing={editing} lit={lit} contour={id} side="a">
          <SelectField
            label={`Contour ${i + 1} to`}
            value={value(id, 'a')}
            options={[
              {
                value: 'auto',
                label: plan ? `Automatic: ${name(now.get(id), plan && isJoined(piece, plan, id, 'a'))}` : 'Automatic',
              },
              ...second.map((other, j) => ({ value: other, label: `Contour ${j + 1}` })),
              { value: 'alone', label: 'No partner: shrinks away' },
              ...WIPES.map(({ angle, label }) => ({
                value: `wipe ${angle}`,
                label: `No partner: is wiped away ${label}`,
              })),
            ]}
            onChange={(choice) => choose(id, 'a', choice)}
          />
        </PointedAt>
      ))}
      {coming.map(({ id, j }) => (
        <PointedAt key={id} editing={editing} lit={lit} contour={id} side="b">
          <SelectField
            label={`Contour ${j + 1} comes`}
            value={value(id, 'b')}
            options={[
              { value: 'auto', label: 'Automatic' },
              { value: 'alone', label: 'Growing from a point' },
              ...WIPES.map(({ angle, label }) => ({ value: `wipe ${angle}`, label: `Wiped in ${label}` })),
            ]}
            onChange={(choice) => choose(id, 'b', choice)}
          />
        </PointedAt>
      ))}
    </Decided>
  );
}

/** A row of the list whose contour is shown in the pictures while it is pointed at or worked on, and the other way round. */
function PointedAt({
  editing,
  lit,
  contour,
  side,
  children,
}: LitContour & {
  readonly editing: MatchEditing;
  readonly lit: MatchView['lit'];
  readonly children: ReactNode;
}) {
  const show = (): void => editing.change({ lit: { side, contour } });
  const hide = (): void => editing.change({ lit: null });
  return (
    <div
      className={`contour-row ${lit?.contour === contour ? 'lit' : ''}`}
      onPointerEnter={show}
      onPointerLeave={hide}
      onFocus={show}
      onBlur={hide}
    >
      {children}
    </div>
  );
}
