import {
  type Contour,
  changeKey,
  fixMiddle,
  type LaneKey,
  type LaneRecord,
  moveAlongOutline,
  outlineOfPart,
  type Piece,
  placementMatrix,
  type TimedKey,
  transformOutline,
} from '@core';
import { changePiece, sessionActions, useAppDispatch } from '../../state';
import { ActionButton, Choice, NumberField, SelectField } from '../../ui';
import { freshId } from '../../workers';

/** A first curve between two places: handles a third of the way, a little to the side, as arms and heads move (common practice: arcs look alive). */
const BEND = 0.33;

type Handle = readonly [x: number, y: number];

/** How the path of a position bends at a key: its handles, px; curved in one press, straightened in another. */
export function PathFields({
  piece,
  lane,
  timed,
  at,
}: {
  readonly piece: Piece;
  readonly lane: LaneRecord;
  readonly timed: readonly TimedKey[];
  readonly at: number;
}) {
  const dispatch = useAppDispatch();
  const { key } = timed[at];
  const set = (name: string, id: string, path: LaneKey['path']): void =>
    void dispatch(changePiece(name, (draft) => changeKey(draft, lane.id, id, { path: path ?? {} })));
  const handle = (side: 'in' | 'out', axis: 0 | 1, value: number): void => {
    const [x, y] = key.path?.[side] ?? [0, 0];
    set('Bend the path', key.id, { ...key.path, [side]: axis === 0 ? [value, y] : [x, value] });
  };
  const outlines = piece.figureOrder
    .filter((id) => id !== lane.figure && outlineOfFigure(piece, id))
    .map((id) => piece.figures[id]);
  const next = timed[at + 1]?.key;
  const bent = (key.path?.out ?? key.path?.in) !== undefined;
  return (
    <>
      <h3>Path</h3>
      {(['in', 'out'] as const).map((side) => {
        const own = key.path?.[side];
        return (
          own &&
          ([0, 1] as const).map((axis) => (
            <NumberField
              key={`${side}-${axis}`}
              label={`${side === 'in' ? 'Arrives' : 'Leaves'} ${axis === 0 ? 'X' : 'Y'}`}
              value={own[axis]}
              unit="px"
              digits={1}
              onChange={(value) => handle(side, axis, value)}
            />
          ))
        );
      })}
      {next && !key.path?.out && (
        <ActionButton
          label="Curve the way to the next"
          hint="On an arc instead of straight; its handles lie on the picture"
          onClick={() =>
            dispatch(
              changePiece('Curve a path', (draft) => {
                const [dx, dy] = [next.value[0] - key.value[0], next.value[1] - key.value[1]];
                const out: [number, number] = [BEND * (dx + dy), BEND * (dy - dx)];
                const into: [number, number] = [BEND * (dy - dx), BEND * (-dy - dx)];
                changeKey(draft, lane.id, key.id, { path: { ...key.path, out: tidy(out) } });
                changeKey(draft, lane.id, next.id, { path: { ...next.path, in: tidy(into) } });
              }),
            )
          }
        />
      )}
      {bent && <ActionButton label="Straighten" onClick={() => set('Straighten a path', key.id, {})} />}
      {outlines.length > 0 && (
        <SelectField
          label="Along"
          value=""
          options={[
            { value: '', label: 'An outline…' },
            ...outlines.map(({ id, name }) => ({ value: id, label: name })),
          ]}
          onChange={(id) => {
            const contour = outlineOfFigure(piece, id);
            if (!contour || !lane.figure) return;
            const { figure } = lane;
            dispatch(
              changePiece(`Move along ${piece.figures[id].name}`, (draft) =>
                moveAlongOutline(draft, figure, contour, freshId),
              ),
            );
            dispatch(sessionActions.keysChosen([{ lane: lane.id, key: null }]));
          }}
        />
      )}
      <Choice
        label="The figure"
        value={lane.along ? 'along' : 'upright'}
        options={[
          { value: 'upright', label: 'Stays upright' },
          { value: 'along', label: 'Points along the path', hint: 'It rotates with the direction of its path' },
        ]}
        onChange={(how) =>
          dispatch(
            changePiece(how === 'along' ? 'Point along the path' : 'Keep upright', (draft) => {
              if (how === 'along' && lane.figure) fixMiddle(draft, lane.figure);
              if (how === 'along') draft.lanes[lane.id].along = true;
              else delete draft.lanes[lane.id].along;
            }),
          )
        }
      />
    </>
  );
}

/** The first contour of what a figure shows first, where its base placement puts it; undefined where it has none. */
function outlineOfFigure(piece: Piece, figureId: string): Contour | undefined {
  const pose = piece.poses[piece.figures[figureId].poses[0]];
  const part = pose?.parts.map((id) => piece.parts[id]).find(({ contours }) => contours.length > 0);
  return part && transformOutline(outlineOfPart(part), placementMatrix(pose.placement)).contours[0];
}

const tidy = ([x, y]: Handle): [number, number] => [Math.round(x * 10) / 10, Math.round(y * 10) / 10];
