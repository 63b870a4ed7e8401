import { useStore } from 'react-redux';
import { type AppStore, api, changePiece, problemText, sessionActions, UNKEPT } from '../../state';
import { freshId } from '../../workers';
import { frameRequest } from './frame-request';

/** The share of the canvas that an arriving reference picture takes, and how far it is dimmed. */
const CANVAS_SHARE = 0.9;
const DIMMED = 0.35;

/** Stores a picture and lays it over the middle of the canvas, dimmed and locked. */
export function usePictureKeeper(): (file: File) => void {
  const store = useStore() as AppStore;
  return (file) => void keep(store, file);
}

/** Takes a file to trace: a picture at once, of a video or GIF the one that is chosen. */
export function useReferenceFile(): (file: File) => void {
  const keepPicture = usePictureKeeper();
  return (file) => (isMovingPicture(file) ? frameRequest.set(file) : keepPicture(file));
}

/** Files to trace: pictures, and videos and GIFs, of which one picture is chosen. */
export const REFERENCE_TYPES = 'image/png,image/jpeg,image/webp,image/svg+xml,image/gif,image/apng,video/*';
export const isReferenceFile = (file: File): boolean =>
  /^image\/(png|jpeg|webp)$/.test(file.type) || isMovingPicture(file);
const isMovingPicture = ({ type, name }: File): boolean =>
  /^video\/|^image\/(gif|apng)$/.test(type) || /\.(gif|apng|mp4|m4v|webm|mov|mkv)$/i.test(name);

async function keep(store: AppStore, file: File): Promise<void> {
  const refuse = (text: string): void => void store.dispatch(sessionActions.told({ tone: 'error', text }));
  const size = await pictureSize(file).catch(() => undefined);
  if (!size) {
    refuse(`${file.name}: Expected a PNG, JPEG, WebP or SVG picture; this file cannot be shown as one.`);
    return;
  }
  const { data, error } = await store.dispatch(api.endpoints.keepAsset.initiate(file, UNKEPT));
  if (!data) {
    refuse(`${file.name}: ${problemText(error)}`);
    return;
  }
  store.dispatch(
    changePiece('Add a reference picture', (draft) => {
      const { width, height } = draft.canvas;
      const k = CANVAS_SHARE * Math.min(width / size.width, height / size.height);
      draft.references.push({
        id: freshId('r'),
        name: file.name.slice(0, 200) || 'Picture',
        asset: data.id,
        x: (width - k * size.width) / 2,
        y: (height - k * size.height) / 2,
        width: k * size.width,
        height: k * size.height,
        opacity: DIMMED,
        locked: true,
        shown: true,
      });
    }),
  );
}

/** The picture's own size in px; an SVG without one counts as a square. */
async function pictureSize(file: File): Promise<{ width: number; height: number }> {
  const url = URL.createObjectURL(file);
  try {
    const image = new Image();
    image.src = url;
    await image.decode();
    return { width: image.naturalWidth || 512, height: image.naturalHeight || 512 };
  } finally {
    URL.revokeObjectURL(url);
  }
}
