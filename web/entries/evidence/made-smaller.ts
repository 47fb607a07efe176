/** A photograph's longer side is made no longer than this, in dots: it is readable, and small enough to wait on the device. */
const LONGEST_SIDE = 1600;
const QUALITY = 0.82;

/**
 * A picture made smaller on the device, as base64; what a camera writes into it is left behind.
 *
 * @throws DOMException for what is no picture
 */
export async function madeSmaller(file: File): Promise<string> {
  const picture = await createImageBitmap(file);
  const scale = Math.min(1, LONGEST_SIDE / Math.max(picture.width, picture.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.round(picture.width * scale);
  canvas.height = Math.round(picture.height * scale);
  canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height);
  picture.close();
  return canvas.toDataURL('image/jpeg', QUALITY).replace(/^data:[^,]*,/, '');
}
