import { inflateSync } from 'node:zlib';

/** Bytes: the header and one entry of the list of tables, packed (WOFF 1.0) and unpacked (sfnt). */
const PACKED = { header: 44, entry: 20 };
const PLAIN = { header: 12, entry: 16 };

/**
 * A font file with its tables unpacked. What sets the letters of a certificate inflates the whole table of outlines again for
 * each letter where it is packed: a third of the time a paper takes.
 * Layout of both: W3C recommendation WOFF File Format 1.0, 13 December 2012.
 * @throws Error where it is no font packed like this
 */
export function unpackedFont(woff: Buffer): Buffer {
  if (woff.toString('latin1', 0, 4) !== 'wOFF') throw new Error('Not a font in the format WOFF 1.0.');
  const count = woff.readUInt16BE(12);
  const head = Buffer.alloc(PLAIN.header + count * PLAIN.entry);
  const power = 2 ** Math.floor(Math.log2(count));
  woff.copy(head, 0, 4, 8);
  head.writeUInt16BE(count, 4);
  head.writeUInt16BE(power * PLAIN.entry, 6);
  head.writeUInt16BE(Math.log2(power), 8);
  head.writeUInt16BE((count - power) * PLAIN.entry, 10);
  const tables: Buffer[] = [];
  let at = head.length;
  for (let i = 0; i < count; i++) {
    const from = PACKED.header + i * PACKED.entry;
    const [offset, packed, length] = [4, 8, 12].map((n) => woff.readUInt32BE(from + n)) as [
      number,
      number,
      number,
    ];
    const held = woff.subarray(offset, offset + packed);
    const table = packed < length ? inflateSync(held) : held;
    if (table.length !== length) throw new Error('A table of the font is not as long as its list says.');
    const to = PLAIN.header + i * PLAIN.entry;
    woff.copy(head, to, from, from + 4);
    woff.copy(head, to + 4, from + 16, from + 20);
    head.writeUInt32BE(at, to + 8);
    head.writeUInt32BE(length, to + 12);
    // each begins at a multiple of four
    const filled = Buffer.alloc(Math.ceil(length / 4) * 4);
    table.copy(filled);
    tables.push(filled);
    at += filled.length;
  }
  return Buffer.concat([head, ...tables]);
}
