/** Reads a code out of a picture by itself, where the browser has no reader of its own. */
import {
  BarcodeFormat,
  BinaryBitmap,
  DecodeHintType,
  GlobalHistogramBinarizer,
  HybridBinarizer,
  InvertedLuminanceSource,
  MultiFormatReader,
  RGBLuminanceSource,
} from '@zxing/library';

const SAME = [
  BarcodeFormat.QR_CODE,
  BarcodeFormat.DATA_MATRIX,
  BarcodeFormat.CODE_128,
  BarcodeFormat.CODE_39,
  BarcodeFormat.EAN_13,
  BarcodeFormat.EAN_8,
  BarcodeFormat.UPC_A,
  BarcodeFormat.ITF,
];

/** A grey picture, row by row. */
interface Grey {
  readonly at: Uint8ClampedArray;
  readonly width: number;
  readonly height: number;
}
/** How often a picture is looked through again at half its size: of sharp ones one in fifty is only then read. */
const HALVINGS = 2;
const halved = ({ at, width, height }: Grey): Grey => {
  const [w, h] = [width >> 1, height >> 1];
  const half = new Uint8ClampedArray(w * h);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const p = 2 * y * width + 2 * x;
      half[y * w + x] = (at[p]! + at[p + 1]! + at[p + width]! + at[p + width + 1]!) >> 2;
    }
  return { at: half, width: w, height: h };
};

/** @param rgba four bytes a pixel, as a canvas gives them  @returns what the code says; null where none can be read */
export function decode(rgba: Uint8ClampedArray, width: number, height: number): string | null {
  const at = new Uint8ClampedArray(width * height);
  for (let i = 0, p = 0; i < at.length; i++, p += 4)
    at[i] = (rgba[p]! * 2 + rgba[p + 1]! * 5 + rgba[p + 2]!) >> 3;
  let grey: Grey = { at, width, height };
  for (let n = 0; n <= HALVINGS && grey.width && grey.height; n++, grey = halved(grey)) {
    const text = decodeGrey(grey);
    if (text !== null) return text;
  }
  return null;
}
function decodeGrey({ at, width, height }: Grey): string | null {
  const source = new RGBLuminanceSource(at, width, height);
  const hints = new Map<DecodeHintType, unknown>([
    [DecodeHintType.POSSIBLE_FORMATS, SAME],
    [DecodeHintType.TRY_HARDER, true],
  ]);
  // a plate may be engraved light on dark
  for (const seen of [source, new InvertedLuminanceSource(source)])
    // light that changes over the picture first, then a picture that is dull all over
    for (const Binarizer of [HybridBinarizer, GlobalHistogramBinarizer])
      try {
        const reader = new MultiFormatReader();
        reader.setHints(hints);
        return reader.decode(new BinaryBitmap(new Binarizer(seen))).getText();
      } catch {
        /* none in it that way */
      }
  return null;
}
