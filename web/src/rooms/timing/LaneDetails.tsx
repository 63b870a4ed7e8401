import {
  CANVAS_LANES,
  COLOUR_CHANGES,
  type ColourChange,
  canFollow,
  type Drift,
  driveLane,
  type Figure,
  type Follow,
  figureOfLane,
  followCycle,
  goesByNumbers,
  isColourLane,
  isShapeNumber,
  type LaneProperty,
  type LaneRecord,
  LIMITS,
  neutralOf,
  type Piece,
  PULSE_SHAPES,
  type Pulse,
  pieceDuration,
  poseCanHave,
  propertiesOf,
} from '@core';
import { lazy, Suspense } from 'react';
import { changePiece, useAppDispatch } from '../../state';
import { Choice, NumberField, SelectField } from '../../ui';
import { laneWords } from './lane-words';

/** Charts come with a package of their own, when they are first looked at. */
const SpeedChart = lazy(() => import('./SpeedChart'));

const NOTHING = 'nothing';

const COLOUR_WORDS: Readonly<Record<ColourChange, string>> = {
  same: '',
  lighter: ', lighter',
  darker: ', darker',
  complementary: ', complementary',
};

/** What moves a lane without keys: another lane that it follows, drift, and a pulse. */
export function LaneDetails({ piece, lane }: { readonly piece: Piece; readonly lane: LaneRecord }) {
  const words = laneWords(lane.property);
  const owner = figureOfLane(piece, lane);
  const colour = isColourLane(lane.property);
  return (
    <aside className="details" aria-label="Details">
      <div className="details-body">
        <header className="details-head">
          <h2>{words.label}</h2>
        </header>
        <p className="details-note">
          {colour
            ? `Lane of ${owner ? owner.name : 'the canvas'}.`
            : `Set for the whole lane of ${owner ? owner.name : 'the canvas'}, on top of its keys.`}
        </p>
        {owner && isShapeNumber(lane.property) && <ByPoints piece={piece} figure={owner} property={lane.property} />}
        <p className="details-note">
          Double-click the lane to add a key there. Drag with ⇧ over lanes to choose keys by a box.
        </p>
        {!colour && (
          <Suspense fallback={<p className="details-note">Drawing the chart …</p>}>
            <SpeedChart piece={piece} lane={lane} />
          </Suspense>
        )}
        <FollowFields piece={piece} lane={lane} />
        {!colour && <DriftFields lane={lane} />}
        {!colour && <PulseFields piece={piece} lane={lane} />}
      </div>
    </aside>
  );
}

/** Which shifts heed a number of a shape at their ends only. */
function ByPoints({
  piece,
  figure,
  property,
}: {
  readonly piece: Piece;
  readonly figure: Figure;
  readonly property: LaneProperty;
}) {
  const shifts = figure.rail
    .map((id) => piece.shifts[id])
    .filter(
      (shift) =>
        [shift.from, shift.to].some((pose) => poseCanHave(piece, pose, property)) &&
        !goesByNumbers(piece, figure.id, shift),
    );
  if (shifts.length === 0) return null;
  const names = shifts.map(({ from, to }) => `${piece.poses[from].name} to ${piece.poses[to].name}`);
  return (
    <p className="details-note">
      {names.join(', ')} {names.length === 1 ? 'goes' : 'go'} by points: it counts where{' '}
      {names.length === 1 ? 'it begins and ends' : 'they begin and end'}, not between.
    </p>
  );
}

/** Every lane that this one can follow, by a name for it. */
function sources(
  piece: Piece,
  lane: LaneRecord,
): { readonly name: string; readonly label: string; readonly owner: string; readonly follow: Follow }[] {
  const plain = { factor: 1, offset: 0, delay: 0 } as const;
  const found: { name: string; label: string; owner: string; follow: Follow }[] = [];
  const add = (figure: string | null, property: LaneProperty, owner: string): void => {
    if (figure === lane.figure && property === lane.property) return;
    if (followCycle(piece, { figure: lane.figure, property: lane.property }, { figure, property })) return;
    const { label, parts } = laneWords(property);
    const axes =
      isColourLane(property) || neutralOf(property).length === 1 ? [null] : [null, ...parts.map((_, i) => i)];
    for (const axis of axes)
      for (const change of isColourLane(property) ? COLOUR_CHANGES : (['same'] as const)) {
        const follow: Follow = { ...plain, figure, property, axis, colour: change };
        if (!canFollow(lane.property, follow)) continue;
        const name = sourceName(follow);
        const part = axis === null ? '' : ` ${parts[axis]}`;
        found.push({ name, label: `${owner}: ${label}${part}${COLOUR_WORDS[change]}`, owner, follow });
      }
  };
  for (const id of [...piece.figureOrder].reverse())
    for (const property of propertiesOf(piece, piece.figures[id])) add(id, property, piece.figures[id].name);
  for (const property of CANVAS_LANES) add(null, property, 'Canvas');
  return found;
}

const sourceName = ({ figure, property, axis, colour }: Follow): string => `${figure} ${property} ${axis} ${colour}`;

function FollowFields({ piece, lane }: { readonly piece: Piece; readonly lane: LaneRecord }) {
  const dispatch = useAppDispatch();
  const { follow } = lane;
  const words = laneWords(lane.property);
  const found = sources(piece, lane);
  const put = (name: string, next: Follow | undefined): void =>
    void dispatch(changePiece(name, (draft) => driveLane(draft, lane.id, { follow: next })));
  return (
    <>
      <SelectField
        label="Follows"
        value={follow ? sourceName(follow) : NOTHING}
        options={[
          { value: NOTHING, label: 'Nothing' },
          ...found.map(({ name, label, owner }) => ({ value: name, label, group: owner })),
        ]}
        onChange={(name) => {
          const source = found.find((each) => each.name === name);
          const kept = follow && { factor: follow.factor, offset: follow.offset, delay: follow.delay };
          put(
            source ? `Follow ${source.label}` : `${words.label} follows nothing`,
            source && { ...source.follow, ...(kept ?? {}) },
          );
        }}
      />
      {follow && !isColourLane(lane.property) && (
        <>
          <NumberField
            label="Times"
            value={follow.factor}
            step={0.1}
            digits={3}
            limit={LIMITS.followFactor}
            onChange={(factor) => put('How far a lane follows', { ...follow, factor })}
          />
          <NumberField
            label="Plus"
            value={follow.offset * words.factor}
            unit={words.unit}
            digits={words.digits + 1}
            onChange={(typed) => put('How far off a lane follows', { ...follow, offset: typed / words.factor })}
          />
        </>
      )}
      {follow && (
        <NumberField
          label="Later by"
          value={follow.delay}
          unit="s"
          step={piece.canvas.rate.den / piece.canvas.rate.num}
          digits={3}
          limit={LIMITS.seconds}
          onChange={(delay) => put('How late a lane follows', { ...follow, delay })}
        />
      )}
    </>
  );
}

/** What it begins with: a little of what the numbers are in. */
const amountOf = (property: LaneProperty): number[] =>
  neutralOf(property).map(() => {
    const { factor, digits } = laneWords(property);
    return factor === 100 ? 0.1 : digits === 0 ? 1 : 10;
  });

function DriftFields({ lane }: { readonly lane: LaneRecord }) {
  const dispatch = useAppDispatch();
  const { drift } = lane;
  const put = (name: string, next: Drift | undefined): void =>
    void dispatch(changePiece(name, (draft) => driveLane(draft, lane.id, { drift: next })));
  return (
    <>
      <h3>Drift</h3>
      <Choice
        label="Wander at random"
        value={drift ? 'on' : 'off'}
        options={[
          { value: 'off', label: 'No' },
          { value: 'on', label: 'Yes', hint: 'Smooth noise, the same each time it is played' },
        ]}
        onChange={(how) =>
          put(
            how === 'on' ? 'Drift' : 'No drift',
            how === 'on' ? { amount: amountOf(lane.property), speed: 1, seed: 1 } : undefined,
          )
        }
      />
      {drift && (
        <>
          <Amounts
            property={lane.property}
            amount={drift.amount}
            onChange={(amount) => put('How far it drifts', { ...drift, amount })}
          />
          <NumberField
            label="Changes"
            value={drift.speed}
            unit="per s"
            step={0.1}
            digits={2}
            limit={LIMITS.driftSpeed}
            onChange={(speed) => put('How fast it drifts', { ...drift, speed })}
          />
          <NumberField
            label="Seed"
            value={drift.seed}
            step={1}
            digits={0}
            limit={LIMITS.seed}
            onChange={(seed) => put('Another drift', { ...drift, seed: Math.round(seed) })}
          />
        </>
      )}
    </>
  );
}

/** About a second, so that a whole number of beats fits into a loop. */
function firstPeriod(piece: Piece): number {
  const seconds = pieceDuration(piece);
  return piece.playback === 'loop' && seconds > 0
    ? Math.max(LIMITS.pulsePeriod.min, seconds / Math.max(1, Math.round(seconds)))
    : 1;
}

const SHAPE_WORDS: Readonly<Record<Pulse['shape'], string>> = {
  sine: 'Out and back evenly',
  saw: 'Out evenly, back at once',
  beat: 'One beat, then rest',
  square: 'Out for half of it',
};

function PulseFields({ piece, lane }: { readonly piece: Piece; readonly lane: LaneRecord }) {
  const dispatch = useAppDispatch();
  const { pulse } = lane;
  const frame = piece.canvas.rate.den / piece.canvas.rate.num;
  const put = (name: string, next: Pulse | undefined): void =>
    void dispatch(changePiece(name, (draft) => driveLane(draft, lane.id, { pulse: next })));
  const frames = (seconds: number): string => `${+(seconds / frame).toFixed(2)} fr`;
  return (
    <>
      <h3>Pulse</h3>
      <Choice
        label="Repeat as a beat"
        value={pulse ? 'on' : 'off'}
        options={[
          { value: 'off', label: 'No' },
          { value: 'on', label: 'Yes', hint: 'A beat with a period, from a moment on' },
        ]}
        onChange={(how) =>
          put(
            how === 'on' ? 'Pulse' : 'No pulse',
            how === 'on'
              ? { shape: 'beat', period: firstPeriod(piece), from: 0, until: null, amount: amountOf(lane.property) }
              : undefined,
          )
        }
      />
      {pulse && (
        <>
          <SelectField
            label="Beat"
            value={pulse.shape}
            options={PULSE_SHAPES.map((value) => ({ value, label: SHAPE_WORDS[value] }))}
            onChange={(shape) => put('Shape of a pulse', { ...pulse, shape })}
          />
          <Amounts
            property={lane.property}
            amount={pulse.amount}
            onChange={(amount) => put('How far it pulses', { ...pulse, amount })}
          />
          <NumberField
            label="Every"
            value={pulse.period}
            unit="s"
            step={frame}
            digits={4}
            limit={LIMITS.pulsePeriod}
            also={frames(pulse.period)}
            onChange={(period) => put('How often it pulses', { ...pulse, period })}
          />
          <NumberField
            label="From"
            value={pulse.from}
            unit="s"
            step={frame}
            digits={4}
            limit={LIMITS.seconds}
            also={frames(pulse.from)}
            onChange={(from) => put('When it begins to pulse', { ...pulse, from })}
          />
          <Choice
            label="Until"
            value={pulse.until === null ? 'ever' : 'time'}
            options={[
              { value: 'ever', label: 'For ever' },
              { value: 'time', label: 'A time' },
            ]}
            onChange={(how) =>
              put('When it stops pulsing', { ...pulse, until: how === 'ever' ? null : pieceDuration(piece) })
            }
          />
          {pulse.until !== null && (
            <NumberField
              label="No beat starts after"
              value={pulse.until}
              unit="s"
              step={frame}
              digits={4}
              limit={LIMITS.seconds}
              also={frames(pulse.until)}
              onChange={(until) => put('When it stops pulsing', { ...pulse, until })}
            />
          )}
        </>
      )}
    </>
  );
}

/** How much is added to each number of a lane. */
function Amounts({
  property,
  amount,
  onChange,
}: {
  readonly property: LaneProperty;
  readonly amount: readonly number[];
  readonly onChange: (amount: number[]) => void;
}) {
  const { parts, unit, factor, digits } = laneWords(property);
  return parts.map((part, i) => (
    <NumberField
      key={part}
      label={parts.length > 1 ? `By, ${part.toLowerCase()}` : 'By'}
      value={amount[i] * factor}
      unit={unit}
      digits={digits + 1}
      onChange={(typed) => onChange(amount.map((v, k) => (k === i ? typed / factor : v)))}
    />
  ));
}
