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

/** @param rgba four bytes a pixel, as a canvas gives them  @returns what the code says; null where none can be read */
export function decode(rgba: Uint8ClampedArray, width: number, height: number): string | null {
  const grey = new Uint8ClampedArray(width * height);
  for (let i = 0, p = 0; i < grey.length; i++, p += 4)
    grey[i] = (rgba[p]! * 2 + rgba[p + 1]! * 5 + rgba[p + 2]!) >> 3;
  const source = new RGBLuminanceSource(grey, width, height);
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
