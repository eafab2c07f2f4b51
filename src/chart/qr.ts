import { create } from 'qrcode';

/** A QR code as one path in a square of `size` modules; print and screen share it. */
export function qrPath(text: string): { size: number; path: string } {
  const { modules } = create(text, { errorCorrectionLevel: 'M' });
  let path = '';
  for (let y = 0; y < modules.size; y++)
    for (let x = 0; x < modules.size; x++) if (modules.get(x, y)) path += `M${x} ${y}h1v1h-1z`;
  return { size: modules.size, path };
}
