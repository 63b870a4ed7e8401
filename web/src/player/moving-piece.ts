// Goes into components that are taken out, as it is: a custom element that plays an animated SVG. It imports nothing.

/** What the file says of itself, s. */
interface Run {
  /** Of one run. */
  readonly length: number;
  /** Does it go on after it? */
  readonly again: boolean;
  /** When the picture stands that is shown where less motion is asked for. */
  readonly still: number;
}

/** Attributes: src, autoplay, loop (“once”, “again”; left out: as the file), rate, motion (“always”: also where less motion is asked for), label. */
const WATCHED = ['src', 'loop', 'rate', 'label'];
const UNSAFE = 'script,foreignObject,iframe,object,embed';
const STYLES = /<style\b[^>]*>(?:<!\[CDATA\[)?([\s\S]*?)(?:\]\]>)?<\/style>/g;
/** What the files say that are made for it, for programs that make them smaller. */
const OWN_STYLE = ' style="transform-box:view-box"';
/** Sheets that are made, not written into the page: a strict content security policy has nothing against them. */
const HOST_RULES = ':host{display:inline-block}svg{display:block;width:100%;height:auto}';

class MovingPiece extends HTMLElement {
  static observedAttributes = WATCHED;
  private svg: SVGSVGElement | null = null;
  private run: Run = { length: 0, again: false, still: 0 };
  private moment = 0;
  /** Where the clock stood, ms, when it was set going, and what it showed then; null while it stands. */
  private started: { readonly at: number; readonly from: number } | null = null;
  private frame = 0;
  private loading: AbortController | null = null;

  /** Where the file came from that is shown. */
  private source: string | null = null;
  /** Was it going on when it was taken out of the page, or when less motion was asked for? */
  private wasPlaying = false;
  private readonly calm = matchMedia('(prefers-reduced-motion: reduce)');

  connectedCallback(): void {
    if (!this.shadowRoot) {
      const sheet = new CSSStyleSheet();
      sheet.replaceSync(HOST_RULES);
      this.attachShadow({ mode: 'open' }).adoptedStyleSheets = [sheet];
    }
    this.setAttribute('role', 'img');
    this.calm.addEventListener('change', this.heedCalm);
    if (this.svg && this.source === this.getAttribute('src')) this.resume();
    else void this.load();
  }

  disconnectedCallback(): void {
    this.calm.removeEventListener('change', this.heedCalm);
    this.loading?.abort();
    this.wasPlaying ||= this.started !== null;
    this.halt();
  }

  /** Put into the page again: a browser begins anew with what it had taken out. */
  private resume(): void {
    this.svg?.pauseAnimations();
    this.show();
    if (!this.wasPlaying || this.isCalm) return;
    this.wasPlaying = false;
    this.play();
  }

  /** Is less motion asked for, and heeded? */
  private get isCalm(): boolean {
    return this.getAttribute('motion') !== 'always' && this.calm.matches;
  }

  private readonly heedCalm = (): void => {
    if (this.isCalm && this.started) {
      this.pause();
      this.currentTime = this.run.still;
      this.wasPlaying = true;
    } else if (!this.isCalm && this.wasPlaying) {
      this.wasPlaying = false;
      this.play();
    }
  };

  attributeChangedCallback(name: string): void {
    if (!this.isConnected) return;
    if (name === 'src') void this.load();
    else if (name === 'label') this.setAttribute('aria-label', this.getAttribute('label') ?? '');
    else if (this.started) this.started = { at: performance.now(), from: this.moment };
  }

  /** s; of the whole run. */
  get duration(): number {
    return this.run.length;
  }

  /** s; to be set too. */
  get currentTime(): number {
    return this.moment;
  }
  set currentTime(seconds: number) {
    this.moment = this.bounded(Math.max(0, Number(seconds) || 0));
    if (this.started) this.started = { at: performance.now(), from: this.moment };
    this.show();
    this.tell('seek');
  }

  /** 0 to 1 of the run; to be set too, by a slider or a scroll position. */
  get progress(): number {
    return this.run.length > 0 ? Math.min(1, this.moment / this.run.length) : 0;
  }
  set progress(share: number) {
    this.currentTime = share * this.run.length;
  }

  get playbackRate(): number {
    const rate = Number(this.getAttribute('rate') ?? 1);
    return rate > 0 && rate <= 100 ? rate : 1;
  }
  set playbackRate(rate: number) {
    this.setAttribute('rate', String(rate));
  }

  get paused(): boolean {
    return this.started === null;
  }

  play(): void {
    if (!this.svg || this.started) return;
    if (!this.again && this.moment >= this.run.length) this.moment = 0;
    this.started = { at: performance.now(), from: this.moment };
    this.tell('play');
    this.frame = requestAnimationFrame(this.step);
  }

  pause(): void {
    this.wasPlaying = false;
    if (!this.started) return;
    this.halt();
    this.tell('pause');
  }

  private get again(): boolean {
    const loop = this.getAttribute('loop');
    return loop === 'once' ? false : loop === null ? this.run.again : true;
  }

  /** A file that goes on by itself is followed without end; one that does not is begun again. */
  private bounded(seconds: number): number {
    const { length, again } = this.run;
    if (!this.again) return Math.min(seconds, length);
    return again || length === 0 ? seconds : seconds % length;
  }

  private readonly step = (now: number): void => {
    if (!this.started) return;
    const passed = this.started.from + ((now - this.started.at) / 1000) * this.playbackRate;
    const before = this.moment;
    this.moment = this.bounded(Math.max(0, passed));
    this.show();
    if (!this.again && passed >= this.run.length) {
      this.halt();
      this.tell('finish');
      return;
    }
    if (Math.floor(passed / this.run.length) > Math.floor(before / this.run.length) || this.moment < before)
      this.tell('loop');
    if (this.moment < before) this.started = { at: now, from: this.moment };
    this.frame = requestAnimationFrame(this.step);
  };

  private show(): void {
    // The very end of what plays once is the moment before it: at the end itself a browser may have begun again.
    const end = !this.again && this.run.again && this.moment >= this.run.length ? 1e-4 : 0;
    this.svg?.setCurrentTime(this.moment - end);
  }

  private halt(): void {
    this.started = null;
    cancelAnimationFrame(this.frame);
  }

  private tell(type: string): void {
    this.dispatchEvent(new CustomEvent(type, { detail: { time: this.moment, progress: this.progress } }));
  }

  private async load(): Promise<void> {
    this.loading?.abort();
    this.loading = new AbortController();
    const { signal } = this.loading;
    try {
      const src = this.getAttribute('src');
      const text = src ? await this.fetched(src, signal) : (this.querySelector('template')?.innerHTML ?? '');
      if (signal.aborted) return;
      this.source = src;
      this.take(text);
    } catch (error) {
      if (!signal.aborted)
        this.dispatchEvent(new CustomEvent('error', { detail: { message: (error as Error).message } }));
    }
  }

  private async fetched(src: string, signal: AbortSignal): Promise<string> {
    const response = await fetch(src, { signal });
    if (!response.ok) throw new Error(`Expected an SVG at ${src}; the answer was ${response.status}.`);
    return response.text();
  }

  private take(text: string): void {
    // Taken out before it is parsed: a strict policy would report each style in the file.
    let rules = '';
    const plain = text.replace(STYLES, (_, inside: string) => {
      rules += inside;
      return '';
    });
    const parsed = new DOMParser().parseFromString(plain.replaceAll(OWN_STYLE, '').trim(), 'image/svg+xml');
    const svg = parsed.documentElement as unknown as SVGSVGElement;
    if (svg.localName !== 'svg') throw new Error('Expected an SVG; found something else.');
    for (const element of svg.querySelectorAll(UNSAFE)) element.remove();
    for (const element of [svg, ...svg.querySelectorAll('*')])
      for (const { name, value } of [...element.attributes])
        if (name.startsWith('on') || (/href$/.test(name) && !value.startsWith('#'))) element.removeAttribute(name);
    this.halt();
    this.svg?.remove();
    this.svg = document.importNode(svg, true);
    const root = this.shadowRoot as ShadowRoot;
    const sheet = new CSSStyleSheet();
    sheet.replaceSync(rules);
    root.adoptedStyleSheets = [root.adoptedStyleSheets[0], sheet];
    root.append(this.svg);
    this.svg.pauseAnimations();
    const said = (name: string): string | null => svg.getAttribute(`data-${name}`);
    this.run = {
      length: Number(said('length')) || 0,
      again: said('again') === 'yes',
      still: Number(said('still')) || 0,
    };
    if (!this.hasAttribute('aria-label'))
      this.setAttribute('aria-label', this.getAttribute('label') ?? svg.querySelector('title')?.textContent ?? '');
    const autoplay = this.hasAttribute('autoplay') && this.run.length > 0;
    this.wasPlaying = autoplay && this.isCalm;
    this.moment = this.wasPlaying ? this.run.still : 0;
    this.show();
    this.tell('ready');
    if (autoplay && !this.isCalm) this.play();
  }
}

if (!customElements.get('moving-piece')) customElements.define('moving-piece', MovingPiece);
