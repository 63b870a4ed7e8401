interface NamedSvg {
  readonly name: string;
  readonly svg: string;
}

let waiting: NamedSvg | null = null;

/** A shape on its way from the drawer's page into the piece that opens next. */
export const pendingShape = {
  put(shape: NamedSvg | null): void {
    waiting = shape;
  },
  take(): NamedSvg | null {
    const shape = waiting;
    waiting = null;
    return shape;
  },
};
