import { RefusedError } from '../data/api';

/** As the server would refuse it: told at the form. */
const noPhoto = (message: string): RefusedError => new RefusedError(422, { code: 'PHOTO', message });

/** Longest edge of a kept photo and of its small one, pixels. */
const LONGEST = 2400;
const LONGEST_SMALL = 320;
const QUALITY = 0.86;

/** Draws a picture upright, no larger than asked, and takes only what was drawn: where and when it was taken stays behind. */
async function drawn(picture: ImageBitmap, longest: number, name: string): Promise<File> {
  const scale = Math.min(1, longest / Math.max(picture.width, picture.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.max(1, Math.round(picture.width * scale));
  canvas.height = Math.max(1, Math.round(picture.height * scale));
  canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height);
  const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/jpeg', QUALITY));
  if (!blob) throw noPhoto('The photo could not be drawn. Take it anew, or save without it.');
  return new File([blob], `${name.replace(/\.\w+$/, '')}.jpg`, { type: 'image/jpeg' });
}

/** A photo as it is kept, and a small one for lists. */
export interface KeptPhoto {
  readonly whole: File;
  readonly small: File;
}

/** Turns a photo as its camera was held, and leaves out what it says beside the picture. @throws RefusedError for a file that is no picture. */
export async function uprightPhoto(file: File): Promise<KeptPhoto> {
  let picture: ImageBitmap;
  try {
    picture = await createImageBitmap(file, { imageOrientation: 'from-image' });
  } catch {
    throw noPhoto(`${file.name} is not a picture that this browser reads. Take a JPEG or PNG.`);
  }
  try {
    return {
      whole: await drawn(picture, LONGEST, file.name),
      small: await drawn(picture, LONGEST_SMALL, `${file.name.replace(/\.\w+$/, '')}-small`),
    };
  } finally {
    picture.close();
  }
}

/** Photos as they are kept, without small ones. */
export const uprightPhotos = async (files: readonly File[]): Promise<readonly File[]> =>
  Promise.all(files.map(async (file) => (await uprightPhoto(file)).whole));
