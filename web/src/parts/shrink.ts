/** Longest side of a kept photograph, pixels, and its JPEG quality. */
const LONGEST = 1600;
const QUALITY = 0.82;
/** A PDF is sent as it is, so it has to be small already. */
const LARGEST_PDF = 6 * 1024 * 1024;

/**
 * Makes a chosen file ready to send: photographs are drawn again, smaller, as JPEG (which also leaves out where
 * they were taken); PDFs go as they are.
 *
 * @returns Base64 and the name it is kept under
 * @throws Error in words for the screen
 */
export async function prepare(file: File): Promise<{ data: string; name: string }> {
  const head = new Uint8Array(await file.slice(0, 5).arrayBuffer());
  const isPdf = String.fromCharCode(...head) === '%PDF-';
  if (isPdf) {
    if (file.size > LARGEST_PDF)
      throw new Error(
        `That PDF has ${(file.size / 1e6).toFixed(1)} MB; at most 6 MB are kept. Print it to a smaller one.`,
      );
    return { data: await base64(file), name: file.name.slice(0, 120) };
  }
  let picture: ImageBitmap;
  try {
    picture = await createImageBitmap(file, { imageOrientation: 'from-image' });
  } catch {
    throw new Error(
      `“${file.name}” is neither a picture that this browser can read nor a PDF, whatever its name says.`,
    );
  }
  const scale = Math.min(1, LONGEST / Math.max(picture.width, picture.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.max(1, Math.round(picture.width * scale));
  canvas.height = Math.max(1, Math.round(picture.height * scale));
  canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height);
  picture.close();
  const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/jpeg', QUALITY));
  if (!blob) throw new Error('This browser could not shrink the picture.');
  return { data: await base64(blob), name: `${file.name.replace(/\.[^.]*$/, '').slice(0, 110)}.jpg` };
}

function base64(blob: Blob): Promise<string> {
  return new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve((reader.result as string).replace(/^data:[^,]*,/, ''));
    reader.onerror = () => reject(new Error('That file could not be read.'));
    reader.readAsDataURL(blob);
  });
}
