import { getDocument, GlobalWorkerOptions } from 'pdfjs-dist';
import worker from 'pdfjs-dist/build/pdf.worker.min.mjs?url';

GlobalWorkerOptions.workerSrc = worker;

/** Dots an inch of a picture that is printed from. */
const DPI = 300;
const POINTS_AN_INCH = 72;

/**
 * The first page of a PDF file as a PNG picture, 300 dots an inch.
 *
 * @param bytes the file
 */
export async function firstPagePng(bytes: ArrayBuffer): Promise<Blob> {
  const task = getDocument({ data: bytes, isEvalSupported: false });
  const document_ = await task.promise;
  try {
    const page = await document_.getPage(1);
    const viewport = page.getViewport({ scale: DPI / POINTS_AN_INCH });
    const canvas = document.createElement('canvas');
    canvas.width = Math.ceil(viewport.width);
    canvas.height = Math.ceil(viewport.height);
    const context = canvas.getContext('2d');
    if (!context) throw new Error('This browser cannot draw pictures.');
    await page.render({ canvasContext: context, viewport, background: 'white' }).promise;
    const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'));
    if (!blob) throw new Error('The picture could not be made.');
    return blob;
  } finally {
    await task.destroy();
  }
}
