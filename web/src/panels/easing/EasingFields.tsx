import {
  backReach,
  EASING_SIDES,
  type Easing,
  type EasingSide,
  LIMITS,
  type Limit,
  limitIn,
  overshootOf,
  physicsOf,
  readCssEasing,
  type SpringEasing,
  type SpringPhysics,
  STEP_JUMPS,
  springBounce,
  springOvershoot,
  springSeconds,
  writeCssEasing,
} from '@core';
import { useState } from 'react';
import { Choice, NumberField, SelectField, TextField } from '../../ui';

type Kind = Easing['kind'];
type Of<K extends Kind> = Extract<Easing, { kind: K }>;
/** `seconds`: how long it takes by itself, where its numbers say so. */
type Change = (easing: Easing, name: string, seconds?: number) => void;

/** What each kind is called, and what it begins as. */
const KINDS: readonly { readonly value: Kind; readonly label: string; readonly first: Easing }[] = [
  { value: 'cubic-bezier', label: 'Curve', first: { kind: 'cubic-bezier', x1: 0.5, y1: 0, x2: 0.15, y2: 1 } },
  { value: 'linear', label: 'Linear', first: { kind: 'linear' } },
  { value: 'spring', label: 'Spring', first: { kind: 'spring', bounce: 0.4 } },
  { value: 'elastic', label: 'Elastic', first: { kind: 'elastic', side: 'out', amplitude: 1, period: 0.3 } },
  { value: 'bounce', label: 'Bounce', first: { kind: 'bounce', side: 'out' } },
  { value: 'back', label: 'Back', first: { kind: 'back', side: 'out', overshoot: 1.7 } },
  { value: 'steps', label: 'Steps', first: { kind: 'steps', count: 6, jump: 'end' } },
  { value: 'hold', label: 'At once', first: { kind: 'hold', until: 'end' } },
];
const SEVERAL = { value: 'curve', label: 'Several curves' } as const;

const SIDES: Readonly<Record<EasingSide, { label: string; hint: string }>> = {
  out: { label: 'Arriving', hint: 'When it arrives' },
  in: { label: 'Leaving', hint: 'When it leaves' },
  both: { label: 'Both', hint: 'Half of the time each' },
};
const JUMPS: Readonly<Record<(typeof STEP_JUMPS)[number], string>> = {
  end: 'At the end of each',
  start: 'At the start of each',
  none: 'Between them',
  both: 'At both ends too',
};

/** Of what kind an easing is, with the numbers of that kind, and as CSS writes it. */
export function EasingFields({ easing, onChange }: { readonly easing: Easing; readonly onChange: Change }) {
  const options = easing.kind === 'curve' ? [...KINDS, SEVERAL] : KINDS;
  return (
    <>
      <SelectField
        label="Kind"
        value={easing.kind}
        options={options}
        onChange={(kind) => {
          const next = KINDS.find(({ value }) => value === kind);
          if (next) onChange(next.first, `Ease: ${next.label}`);
        }}
      />
      <KindFields easing={easing} onChange={onChange} />
      <CssField easing={easing} onChange={onChange} />
    </>
  );
}

function KindFields({ easing, onChange }: { readonly easing: Easing; readonly onChange: Change }) {
  const set = <K extends Kind>(change: Partial<Of<K>>): void => onChange({ ...easing, ...change } as Easing, 'Ease');
  switch (easing.kind) {
    case 'spring':
      return <SpringFields easing={easing} onChange={onChange} />;
    case 'elastic':
      return (
        <>
          <SideChoice side={easing.side} onChange={(side) => set<'elastic'>({ side })} />
          <NumberField
            label="Swings"
            value={1 / easing.period}
            limit={{ min: 1 / LIMITS.elasticPeriod.max, max: 1 / LIMITS.elasticPeriod.min }}
            step={0.1}
            digits={2}
            onChange={(count) => set<'elastic'>({ period: 1 / count })}
          />
          <NumberField
            label="Reach"
            value={easing.amplitude}
            limit={LIMITS.elasticAmplitude}
            step={0.1}
            digits={2}
            onChange={(amplitude) => set<'elastic'>({ amplitude })}
          />
        </>
      );
    case 'bounce':
      return <SideChoice side={easing.side} onChange={(side) => set<'bounce'>({ side })} />;
    case 'back':
      return (
        <>
          <SideChoice side={easing.side} onChange={(side) => set<'back'>({ side })} />
          <NumberField
            label="How far"
            value={100 * backReach(easing.overshoot)}
            unit="%"
            limit={{ min: 0, max: 100 * backReach(LIMITS.backOvershoot.max) }}
            step={1}
            digits={1}
            onChange={(percent) => set<'back'>({ overshoot: overshootOf(percent / 100) })}
          />
        </>
      );
    case 'steps':
      return (
        <>
          <NumberField
            label="Steps"
            value={easing.count}
            limit={{ ...LIMITS.steps, min: easing.jump === 'none' ? 2 : 1 }}
            step={1}
            digits={0}
            onChange={(count) => set<'steps'>({ count: Math.round(count) })}
          />
          <SelectField
            label="It jumps"
            value={easing.jump}
            options={STEP_JUMPS.map((value) => ({ value, label: JUMPS[value] }))}
            onChange={(jump) =>
              set<'steps'>({ jump, count: jump === 'none' ? Math.max(2, easing.count) : easing.count })
            }
          />
        </>
      );
    case 'hold':
      return (
        <Choice
          label="It jumps"
          value={easing.until}
          options={[
            { value: 'end', label: 'At the end' },
            { value: 'start', label: 'At the start' },
          ]}
          onChange={(until) => set<'hold'>({ until })}
        />
      );
    default:
      return null;
  }
}

function SideChoice({ side, onChange }: { readonly side: EasingSide; readonly onChange: (side: EasingSide) => void }) {
  return (
    <Choice
      label="When"
      value={side}
      options={EASING_SIDES.map((value) => ({ value, ...SIDES[value] }))}
      onChange={onChange}
    />
  );
}

function SpringFields({ easing, onChange }: { readonly easing: SpringEasing; readonly onChange: Change }) {
  const { physics } = easing;
  const beyond = springOvershoot(easing);
  const setPhysics = (next: SpringPhysics): void =>
    onChange(
      { ...easing, bounce: Math.min(LIMITS.springBounce.max, springBounce(next)), physics: next },
      'Ease',
      springSeconds(next),
    );
  const number = (key: keyof SpringPhysics, label: string, limit: Limit) =>
    physics && (
      <NumberField
        label={label}
        value={physics[key]}
        limit={limit}
        step={key === 'mass' ? 0.1 : 1}
        digits={3}
        onChange={(value) => setPhysics({ ...physics, [key]: value })}
      />
    );
  return (
    <>
      <Choice
        label="Set by"
        value={physics ? 'body' : 'bounce'}
        options={[
          { value: 'bounce', label: 'Bounce', hint: 'How much it swings; the duration is the shift’s' },
          { value: 'body', label: 'Body', hint: 'Mass, stiffness and damping; the duration follows from them' },
        ]}
        onChange={(by) => {
          if (by === 'body') setPhysics(physicsOf(easing.bounce));
          else onChange({ kind: 'spring', bounce: Math.round(easing.bounce * 1000) / 1000 }, 'Ease');
        }}
      />
      {physics ? (
        <>
          {number('mass', 'Mass, kg', LIMITS.mass)}
          {number('stiffness', 'Spring, N/m', LIMITS.stiffness)}
          {number('damping', 'Brake, Ns/m', LIMITS.damping)}
          {number('speed', 'Push, ways/s', LIMITS.springSpeed)}
        </>
      ) : (
        <NumberField
          label="Bounce by"
          value={100 * easing.bounce}
          unit="%"
          limit={limitIn(LIMITS.springBounce, 100)}
          step={1}
          digits={1}
          onChange={(percent) => onChange({ ...easing, bounce: percent / 100 }, 'Ease')}
        />
      )}
      <p className="details-note" data-testid="spring-says">
        {physics && `At rest after ${springSeconds(physics).toFixed(2)} s. `}
        {beyond < 0.0005 ? 'It does not go beyond its end.' : `It goes ${(100 * beyond).toFixed(1)} % beyond its end.`}
      </p>
    </>
  );
}

/** The easing as CSS has it, to copy, and to type or paste. */
function CssField({ easing, onChange }: { readonly easing: Easing; readonly onChange: Change }) {
  const [refusal, setRefusal] = useState('');
  return (
    <>
      <TextField
        label="As CSS"
        value={writeCssEasing(easing)}
        most={20_000}
        onChange={(text) => {
          try {
            onChange(readCssEasing(text), 'Ease as CSS says');
            setRefusal('');
          } catch (error) {
            setRefusal((error as Error).message);
          }
        }}
      />
      {refusal && (
        <p className="details-remark" role="alert">
          {refusal}
        </p>
      )}
    </>
  );
}
