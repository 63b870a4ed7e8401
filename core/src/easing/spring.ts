import type { EasingKind } from './kind';

/** A mass on a spring: kg, N/m, N·s/m, and the speed with which it starts, in ways a second. */
export interface SpringPhysics {
  readonly mass: number;
  readonly stiffness: number;
  readonly damping: number;
  readonly speed: number;
}

/**
 * A damped spring that is let go and comes to rest. `bounce` is 1 − the damping ratio: 0 comes to rest as fast as it can without going beyond, above it
 * swings, below it creeps. The duration of what it eases is the time until it has settled. With `physics` the same is said by a body's own numbers, from which
 * bounce and duration follow.
 */
export interface SpringEasing {
  readonly kind: 'spring';
  readonly bounce: number;
  readonly physics?: SpringPhysics;
  /** Run backwards: it gathers itself and goes off. */
  readonly backwards?: boolean;
}

/** It has settled when it stays this near to its end. */
export const SPRING_REST = 1e-3;
/** Springs swing no longer than this: damping ratios below it would never settle. */
export const LEAST_DAMPING = 0.02;

/** A spring in units of its own frequency ω: damping ratio, starting speed (ways for each 1/ω), and when it has settled. */
interface Swing {
  readonly ratio: number;
  readonly speed: number;
  readonly rest: number;
}

const swings = new WeakMap<SpringEasing, Swing>();

function swingOf(easing: SpringEasing): Swing {
  let swing = swings.get(easing);
  if (!swing) {
    const { bounce, physics } = easing;
    const omega = physics ? Math.sqrt(physics.stiffness / physics.mass) : 1;
    const ratio = Math.max(
      LEAST_DAMPING,
      physics ? physics.damping / (2 * Math.sqrt(physics.stiffness * physics.mass)) : 1 - bounce,
    );
    const speed = physics ? physics.speed / omega : 0;
    swing = { ratio, speed, rest: restOf(ratio, speed) };
    swings.set(easing, swing);
  }
  return swing;
}

/** Damping ratios this near to 1 are 1: both other formulas divide by their distance. */
const CRITICAL = 1e-4;

/**
 * Where the spring is at τ = ωt, and how fast it goes: the closed form of x″ + 2ζx′ + x = 1 with x(0) = 0, x′(0) = s (any textbook of mechanics; Meirovitch:
 * Fundamentals of Vibrations, 2001, section 2.2). Returns the distance that is left, 1 − x, for `speed` false, and x′ for true.
 */
function motionAt({ ratio: z, speed: s }: Omit<Swing, 'rest'>, tau: number, speed: boolean): number {
  if (Math.abs(z - 1) < CRITICAL) {
    const e = Math.exp(-tau);
    return speed ? e * (s + (1 - s) * tau) : e * (1 + (1 - s) * tau);
  }
  if (z < 1) {
    const d = Math.sqrt(1 - z * z);
    const e = Math.exp(-z * tau);
    const b = (z - s) / d;
    const [cos, sin] = [Math.cos(d * tau), Math.sin(d * tau)];
    return speed ? e * (s * cos + (z * b + d) * sin) : e * (cos + b * sin);
  }
  const d = Math.sqrt(z * z - 1);
  const [slow, fast] = [z - d, z + d];
  // 1 − x = p·e^(−slow τ) + q·e^(−fast τ), with p + q = 1 and slow·p + fast·q = s.
  const p = (fast - s) / (fast - slow);
  const q = 1 - p;
  const [a, b] = [p * Math.exp(-slow * tau), q * Math.exp(-fast * tau)];
  return speed ? slow * a + fast * b : a + b;
}

/** When the spring stays within `SPRING_REST` of its end, in 1/ω: found on what its swings stay under. */
function restOf(ratio: number, speed: number): number {
  if (ratio < 1 - CRITICAL) {
    const reach = Math.hypot(1, (ratio - speed) / Math.sqrt(1 - ratio * ratio));
    return Math.log(reach / SPRING_REST) / ratio;
  }
  // It comes back at most once: beyond its turn the distance only shrinks.
  let high = 1;
  while (
    Math.abs(motionAt({ ratio, speed }, high, false)) > SPRING_REST ||
    motionAt({ ratio, speed }, high, true) * motionAt({ ratio, speed }, high, false) < 0
  )
    high *= 2;
  let low = 0;
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2;
    if (Math.abs(motionAt({ ratio, speed }, middle, false)) > SPRING_REST) low = middle;
    else high = middle;
  }
  return high;
}

/** How long a spring with a body's own numbers takes to settle, s. */
export function springSeconds(physics: SpringPhysics): number {
  const omega = Math.sqrt(physics.stiffness / physics.mass);
  return swingOf({ kind: 'spring', bounce: 0, physics }).rest / omega;
}

/** 1 − the damping ratio of a body's own numbers. */
export const springBounce = ({ mass, stiffness, damping }: SpringPhysics): number =>
  1 - damping / (2 * Math.sqrt(stiffness * mass));

/** How far a spring goes beyond its end at most, as a share of the way. */
export function springOvershoot(easing: SpringEasing): number {
  const swing = swingOf(easing);
  let most = 0;
  const steps = 400;
  for (let i = 1; i <= steps; i++) most = Math.max(most, -motionAt(swing, (swing.rest * i) / steps, false));
  return most;
}

export const spring: EasingKind<SpringEasing> = {
  files: 'springs',
  value(easing, time) {
    const swing = swingOf(easing);
    if (easing.backwards) return motionAt(swing, swing.rest * (1 - time), false);
    return 1 - motionAt(swing, swing.rest * time, false);
  },
  slope(easing, time) {
    const swing = swingOf(easing);
    return swing.rest * motionAt(swing, swing.rest * (easing.backwards ? 1 - time : time), true);
  },
  reversed: ({ backwards, ...easing }) => (backwards ? easing : { ...easing, backwards: true }),
};

/** What a body of 1 kg needs for the same bounce, to begin with. */
export const physicsOf = (bounce: number): SpringPhysics => {
  const stiffness = 200;
  const damping = 2 * Math.sqrt(stiffness) * Math.max(LEAST_DAMPING, 1 - bounce);
  return { mass: 1, stiffness, damping: Math.round(damping * 100) / 100, speed: 0 };
};
