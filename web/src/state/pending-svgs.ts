/** An SVG and what it is called. */
export interface NamedSvg {
  readonly name: string;
  readonly svg: string;
}

let waiting: readonly NamedSvg[] = [];

/** SVGs on their way from the shelf or the drawer’s page into the piece that opens next. */
export const pendingSvgs = {
  put(svgs: readonly NamedSvg[]): void {
    waiting = svgs;
  },
  /** Each is taken once. */
  take(): readonly NamedSvg[] {
    const svgs = waiting;
    waiting = [];
    return svgs;
  },
};
