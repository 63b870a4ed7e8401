interface Size {
  readonly width: number;
  readonly height: number;
}

/** How a piece's canvas lies in its pane when it is fitted: with a margin, and room for the bar of a tool under it. */
export function fittedCanvas(pane: Size, canvas: Size): { zoom: number; left: number; top: number } {
  const [margin, foot] = [28, 52];
  const zoom = Math.min((pane.width - 2 * margin) / canvas.width, (pane.height - margin - foot) / canvas.height);
  return {
    zoom,
    left: (pane.width - canvas.width * zoom) / 2,
    top: margin + (pane.height - margin - foot - canvas.height * zoom) / 2,
  };
}
