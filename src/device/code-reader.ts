/** Codes by camera or from a picture: the browser's own reader where it has one, ours otherwise. */
import { FORMATS } from './formats';

interface Detector {
  detect(source: CanvasImageSource): Promise<{ readonly rawValue: string }[]>;
}
/** No picture is looked through at more than this, px: a code that needs more is held too far away. */
const MOST = 1600;

const detector = async (): Promise<Detector | null> => {
  const Own = (
    globalThis as {
      BarcodeDetector?: {
        new (of: { formats: string[] }): Detector;
        getSupportedFormats(): Promise<string[]>;
      };
    }
  ).BarcodeDetector;
  if (!Own) return null;
  const formats = await Own.getSupportedFormats().catch((): string[] => []);
  const both = FORMATS.filter((f) => formats.includes(f));
  return both.includes('qr_code') && both.includes('code_128') ? new Own({ formats: both }) : null;
};
let own: Promise<Detector | null> | undefined;

/** What the code in a picture says; null where none can be read. */
export async function readCode(
  source: CanvasImageSource,
  { width, height }: { readonly width: number; readonly height: number },
): Promise<string | null> {
  if (!width || !height) return null;
  const reader = await (own ??= detector());
  const found = await reader?.detect(source).catch(() => []);
  if (found?.[0]) return found[0].rawValue;
  const scale = Math.min(1, MOST / Math.max(width, height));
  const [w, h] = [Math.round(width * scale), Math.round(height * scale)];
  const canvas = Object.assign(document.createElement('canvas'), { width: w, height: h });
  const context = canvas.getContext('2d', { willReadFrequently: true });
  if (!context) return null;
  context.drawImage(source, 0, 0, w, h);
  const { decode } = await import('./decode');
  return decode(context.getImageData(0, 0, w, h).data, w, h);
}
/** What the code on a photo says. @throws Error when the file is no picture */
export async function readCodeFile(file: Blob): Promise<string | null> {
  const picture = await createImageBitmap(file).catch(() => {
    throw new Error('That file is no picture. Take a photo of the code, or choose one.');
  });
  try {
    return await readCode(picture, picture);
  } finally {
    picture.close();
  }
}
