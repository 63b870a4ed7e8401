import type { Locator } from '@playwright/test';

export interface DroppedFile {
  readonly name: string;
  readonly text: string;
  readonly type?: string;
}

/** Drops files onto an element as a pointer would, at `x` px from its left edge (default: the middle). */
export async function dropFiles(target: Locator, files: readonly DroppedFile[], x?: number): Promise<void> {
  const transfer = await target.page().evaluateHandle((list) => {
    const data = new DataTransfer();
    for (const { name, text, type } of list) data.items.add(new File([text], name, { type: type ?? 'image/svg+xml' }));
    return data;
  }, files);
  const box = await target.boundingBox();
  if (!box) throw new Error('The drop target is not on the page.');
  const at = {
    clientX: box.x + (x ?? box.width / 2),
    clientY: box.y + box.height / 2,
    dataTransfer: transfer,
    bubbles: true,
  };
  await target.dispatchEvent('dragenter', at);
  await target.dispatchEvent('dragover', at);
  await target.dispatchEvent('drop', at);
}
