import { type ReadPictures, readPictures } from './proof/read-pictures';

/** The pictures of a video, GIF or animated PNG, by decoders of the browser. Close it afterwards. @throws for what none of them can read */
export function openMovingPicture(file: File): Promise<ReadPictures> {
  const ending = /\.(\w+)$/.exec(file.name)?.[1].toLowerCase();
  if (file.type === 'image/gif' || ending === 'gif') return readPictures('gif', file);
  if (file.type === 'image/apng' || ending === 'apng') return readPictures('apng', file);
  return readPictures('mp4', file);
}

/** The longest side of a picture that is kept to be traced, px. */
const LONGEST_PX = 2_048;

/** A picture as a PNG file. */
export async function pictureFile(picture: ImageData, name: string): Promise<File> {
  const { width, height } = picture;
  const scale = Math.min(1, LONGEST_PX / Math.max(width, height));
  const [w, h] = [Math.max(1, Math.round(scale * width)), Math.max(1, Math.round(scale * height))];
  const whole = new OffscreenCanvas(width, height);
  whole.getContext('2d')?.putImageData(picture, 0, 0);
  const canvas = new OffscreenCanvas(w, h);
  canvas.getContext('2d')?.drawImage(whole, 0, 0, w, h);
  return new File([await canvas.convertToBlob({ type: 'image/png' })], name, { type: 'image/png' });
}
