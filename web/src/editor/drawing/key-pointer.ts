import type { AppStore } from '../../state';
import { sessionActions } from '../../state';
import type { NamedPlace, Pen, PressKeys } from '../tools/tool';
import type { Viewport } from '../viewport/viewport';

export interface KeyPointerParts {
  readonly store: AppStore;
  readonly viewport: Viewport;
  readonly repaint: () => void;
  down(sx: number, sy: number, keys: PressKeys): void;
  move(sx: number, sy: number, keys: PressKeys): void;
  up(sx: number, sy: number, keys: PressKeys): void;
  cancel(): boolean;
  /** Places that the tool at hand would take hold of, in an order to walk them. */
  places(): readonly NamedPlace[];
}

/** A key as the page's events tell it. */
export interface KeyPress {
  readonly key: string;
  readonly shiftKey: boolean;
  readonly ctrlKey: boolean;
  readonly metaKey: boolean;
  readonly altKey: boolean;
}

/** How far an arrow key goes, px of the piece: alone, with ⇧, with Ctrl or Cmd. */
const STEP = { plain: 10, far: 50, fine: 1 } as const;
const ARROWS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};
/** How near a place is that the marker stands on, px of the piece. */
const ON_PX = 0.5;

/**
 * A pointer that is led by keys. The arrow keys move its marker. Enter presses and releases there, ⇧ Enter takes hold until Enter lets go. Page Up and
 * Page Down walk the places that the tool could take hold of. Home goes to the middle. What it does is the tools' work; it says where it is and what came of it.
 */
export class KeyPointer {
  private at: readonly [number, number] | null = null;
  private lastPress: readonly [number, number] | null = null;
  /** Which of the places the last step of a walk came to. */
  private walked = -1;
  private holds = false;
  private shown = false;

  constructor(private readonly parts: KeyPointerParts) {}

  get isShown(): boolean {
    return this.shown;
  }

  show(): void {
    if (this.shown) return;
    this.shown = true;
    this.at ??= this.middle();
    this.tellPlace();
    this.parts.repaint();
  }

  /** The marker goes, and what it held with it. */
  hide(): void {
    if (!this.shown) return;
    if (this.holds) this.parts.cancel();
    this.holds = false;
    this.shown = false;
    this.parts.repaint();
  }

  /** True when the key meant something to the marker. */
  press(event: KeyPress): boolean {
    const { key, shiftKey, ctrlKey, metaKey, altKey } = event;
    if (!this.shown || altKey) return false;
    const arrow = ARROWS[key];
    if (arrow) {
      const step = ctrlKey || metaKey ? STEP.fine : shiftKey ? STEP.far : STEP.plain;
      this.goTo(this.place[0] + arrow[0] * step, this.place[1] + arrow[1] * step);
      return true;
    }
    if (ctrlKey || metaKey) return false;
    switch (key) {
      case 'Enter':
        if (this.holds) this.letGo();
        else if (shiftKey) this.takeHold();
        else this.click();
        return true;
      case 'Home':
        this.goTo(...this.middle());
        return true;
      case 'PageDown':
      case 'PageUp':
        return this.walk(key === 'PageDown' ? 1 : -1);
      case 'Escape':
        if (!this.holds) return false;
        this.holds = false;
        this.parts.cancel();
        this.say('Left as it was.');
        return true;
      default:
        return false;
    }
  }

  paint({ context: c, colours, toScreen }: Pen): void {
    if (!this.shown) return;
    const [x, y] = toScreen(...this.place);
    const arms = this.holds ? 16 : 12;
    for (const [colour, width] of [
      [colours.paper, 4],
      [colours.accent, 1.8],
    ] as const) {
      c.strokeStyle = colour;
      c.lineWidth = width;
      c.beginPath();
      c.arc(x, y, 6, 0, 2 * Math.PI);
      for (const [dx, dy] of Object.values(ARROWS)) {
        c.moveTo(x + dx * 6, y + dy * 6);
        c.lineTo(x + dx * arms, y + dy * arms);
      }
      c.stroke();
    }
    if (!this.holds) return;
    c.fillStyle = colours.accent;
    c.beginPath();
    c.arc(x, y, 3, 0, 2 * Math.PI);
    c.fill();
  }

  private get place(): readonly [number, number] {
    return this.at ?? this.middle();
  }

  private middle(): [number, number] {
    const canvas = this.parts.store.getState().document.piece?.canvas;
    return [(canvas?.width ?? 0) / 2, (canvas?.height ?? 0) / 2];
  }

  private goTo(x: number, y: number, name?: string): void {
    this.at = [x, y];
    if (this.holds) this.parts.move(...this.screen(), this.keys());
    this.tellPlace(name);
    this.parts.repaint();
  }

  private walk(direction: 1 | -1): boolean {
    const places = this.parts.places();
    if (places.length === 0) {
      this.say('There is nothing to take hold of.');
      return true;
    }
    const [x, y] = this.place;
    const isOn = (place: NamedPlace | undefined): boolean =>
      place !== undefined && Math.hypot(place.x - x, place.y - y) <= ON_PX;
    // Several may lie on each other: the walk goes on from the one that it came to.
    const on = isOn(places[this.walked]) ? this.walked : places.findIndex(isOn);
    const next = on < 0 ? (direction > 0 ? 0 : places.length - 1) : (on + direction + places.length) % places.length;
    this.walked = next;
    this.goTo(places[next].x, places[next].y, places[next].name);
    return true;
  }

  private click(): void {
    const [x, y] = this.place;
    const again = this.lastPress !== null && Math.hypot(this.lastPress[0] - x, this.lastPress[1] - y) <= ON_PX;
    this.tellDone(() => {
      this.parts.down(...this.screen(), this.keys(again ? 2 : 1));
      this.parts.up(...this.screen(), this.keys());
    });
    // A third press at the same place is a first one again.
    this.lastPress = again ? null : [x, y];
  }

  private takeHold(): void {
    this.lastPress = null;
    this.holds = true;
    this.parts.down(...this.screen(), this.keys());
    this.say('Taken hold. The arrow keys drag, Enter lets go, Escape leaves it.');
    this.parts.repaint();
  }

  private letGo(): void {
    this.holds = false;
    this.tellDone(() => this.parts.up(...this.screen(), this.keys()));
    this.parts.repaint();
  }

  /** Says what an action came to: the step of the history that it made, or what it chose. */
  private tellDone(act: () => void): void {
    const before = this.parts.store.getState();
    act();
    const { document, session, drawing } = this.parts.store.getState();
    const step = document.past[document.past.length - 1];
    if (step && step !== before.document.past[before.document.past.length - 1]) this.say(`${step.name}.`);
    else if (drawing.anchors !== before.drawing.anchors && drawing.anchors.length > 0)
      this.say(`${drawing.anchors.length} ${drawing.anchors.length === 1 ? 'point' : 'points'} chosen.`);
    else if (session.selection && session.selection !== before.session.selection)
      this.say(`${document.piece?.figures[session.selection.figureId]?.name ?? 'Something'} chosen.`);
    else if (!session.selection && before.session.selection) this.say('Nothing is chosen.');
    else this.tellPlace();
  }

  private tellPlace(name?: string): void {
    const [x, y] = this.place.map((v) => +v.toFixed(1));
    this.say(`${name ? `${name}, ` : ''}${x}, ${y}`);
  }

  private say(text: string): void {
    this.parts.store.dispatch(sessionActions.said(text));
  }

  private screen(): [number, number] {
    const { x, y, zoom } = this.parts.viewport.view;
    return [x + this.place[0] * zoom, y + this.place[1] * zoom];
  }

  private keys(clicks = 1): PressKeys {
    return { shift: false, alt: false, clicks, byKeys: true };
  }
}
