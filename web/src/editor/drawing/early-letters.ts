/** Where keys come from: the page's window. */
export type KeySource = Pick<EventTarget, 'addEventListener' | 'removeEventListener'>;

/** A text that is set has its field soon after. Where none comes, keys are shortcuts again after this, ms. */
const FIELD_MS = 5_000;

/**
 * Collects what is typed from the moment at which a text was asked for until the field for its letters is there. Letters are kept from being taken for
 * shortcuts meanwhile.
 */
export class EarlyLetters {
  private letters = '';
  private stop: (() => void) | null = null;

  /** `source` is null where there are no keys, as in tests. */
  constructor(
    private readonly source: KeySource | null,
    private readonly fieldMs = FIELD_MS,
  ) {}

  /** Begins to collect while `setting` the text takes, however slow its font comes. Escape, or a press elsewhere, ends it. */
  wait(setting: Promise<unknown>): void {
    this.take();
    const { source } = this;
    if (!source) return;
    const typed = (event: Event): void => {
      const { key, ctrlKey, metaKey, altKey } = event as KeyboardEvent;
      if (ctrlKey || metaKey || altKey) return;
      if (key === 'Escape') this.take();
      else if (key === 'Backspace') this.letters = this.letters.slice(0, -1);
      else if (key === 'Enter') this.letters += '\n';
      else if (key.length === 1) this.letters += key;
      else return;
      event.preventDefault();
      event.stopImmediatePropagation();
    };
    const pressed = (): void => void this.take();
    let timer: ReturnType<typeof setTimeout> | undefined;
    source.addEventListener('keydown', typed, { capture: true });
    source.addEventListener('pointerdown', pressed, { capture: true });
    const stop = (): void => {
      clearTimeout(timer);
      source.removeEventListener('keydown', typed, { capture: true });
      source.removeEventListener('pointerdown', pressed, { capture: true });
    };
    this.stop = stop;
    const isSet = (): void => {
      if (this.stop === stop) timer = setTimeout(pressed, this.fieldMs);
    };
    setting.then(isSet, isSet);
  }

  /** What was typed meanwhile; nothing more is collected. */
  take(): string {
    const { letters } = this;
    this.stop?.();
    this.stop = null;
    this.letters = '';
    return letters;
  }
}
