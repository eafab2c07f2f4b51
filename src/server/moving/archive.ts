/** A signed archive of any size, written and read in pieces: what is in memory at a time does not grow with it. */
import 'server-only';
import { createHash } from 'node:crypto';
import { Readable } from 'node:stream';
import { type Entry, fromRandomAccessReaderPromise, RandomAccessReader, type ZipFile as Opened } from 'yauzl';
import { ZipFile } from 'yazl';
import { dropPieces, type Job, keepPiece, readPiece } from '@/server/jobs/jobs';
import { TroubleError } from '@/server/trouble';
import { MANIFEST, manifestOf, readManifest } from '@/wire/bundle';
import { PIECE_BYTES } from '@/wire/jobs';

/** Every entry carries this day: when a file was packed says nothing about what is in it. */
const DAY = new Date(1980, 0, 2);
/** Files, photos of a large house among them. House figure. */
const MOST_FILES = 2_000_000;
/** Text shrinks to a twentieth, a photo not at all. */
const MOST_RATIO = 200;
/** The signed list of so many files. */
const MOST_MANIFEST = 200_000_000;
/** Pieces of a file kept while it is read: its list at its end, what is read now and what comes next. */
const HELD = 6;
/** A row with everything in it. House figure. */
const MOST_LINE = 50_000_000;

export type Chunks = AsyncIterable<Uint8Array>;
async function* one(bytes: Uint8Array): AsyncGenerator<Uint8Array> {
  yield await Promise.resolve(bytes);
}
/** Puts together an archive as the file of a job. */
export class ArchiveWriter {
  private readonly zip = new ZipFile();
  private readonly hashes: Record<string, string> = {};
  private readonly written: Promise<number>;
  private failed: ((error: unknown) => void) | undefined;
  constructor(private readonly job: Job) {
    this.written = this.keep();
    // whoever adds hears of it first
    this.written.catch((error: unknown) => this.failed?.(error));
  }
  private async keep(): Promise<number> {
    let n = 0;
    let bytes = 0;
    let held: Buffer[] = [];
    let size = 0;
    for await (const chunk of this.zip.outputStream as AsyncIterable<Buffer>) {
      held.push(chunk);
      size += chunk.length;
      while (size >= PIECE_BYTES) {
        const all = Buffer.concat(held);
        await keepPiece(this.job, n++, all.subarray(0, PIECE_BYTES));
        held = [all.subarray(PIECE_BYTES)];
        size -= PIECE_BYTES;
        bytes += PIECE_BYTES;
      }
    }
    if (size) await keepPiece(this.job, n, Buffer.concat(held));
    return bytes + size;
  }
  /** Adds a file and waits until it is in. @param packed whether it is small already */
  add(name: string, chunks: Chunks, packed = false): Promise<void> {
    const hash = createHash('sha256');
    return new Promise((resolve, reject) => {
      this.failed = reject;
      const hashed = async function* () {
        for await (const chunk of chunks) {
          hash.update(chunk);
          yield chunk;
        }
      };
      this.zip.addReadStreamLazy(name, { mtime: DAY, compress: !packed }, (give) => {
        const stream = Readable.from(hashed(), { objectMode: false });
        stream.once('error', reject);
        stream.once('end', () => {
          this.hashes[name] = hash.digest('hex');
          resolve();
        });
        give(null, stream);
      });
    });
  }
  /** Adds a file that is there whole. */
  addBytes(name: string, bytes: Uint8Array, packed = false): Promise<void> {
    return this.add(name, one(bytes), packed);
  }
  /** Signs what is in it and ends it. @returns how large it became, bytes */
  async end(what: { readonly number: string; readonly hash: string }, secret: string): Promise<number> {
    this.zip.addBuffer(Buffer.from(manifestOf(what, this.hashes, secret)), MANIFEST, { mtime: DAY });
    this.zip.end();
    return this.written;
  }
  /** Takes what was written. */
  async drop(): Promise<void> {
    (this.zip.outputStream as Readable).destroy();
    await dropPieces(this.job);
  }
}

/** The file of a job, read wherever it is asked for: mostly beside what was read just before. */
class Pieces extends RandomAccessReader {
  private readonly held = new Map<number, Promise<Buffer>>();
  constructor(private readonly job: Job) {
    super();
  }
  private piece(n: number): Promise<Buffer> {
    const known = this.held.get(n);
    if (known) return known;
    const read = readPiece(this.job, n);
    this.held.set(n, read);
    if (this.held.size > HELD) this.held.delete(this.held.keys().next().value!);
    return read;
  }
  override _readStreamForRange(start: number, end: number): Readable {
    const piece = (n: number) => this.piece(n);
    const range = async function* () {
      for (let n = Math.floor(start / PIECE_BYTES); n * PIECE_BYTES < end; n += 1)
        yield (await piece(n)).subarray(Math.max(0, start - n * PIECE_BYTES), end - n * PIECE_BYTES);
    };
    return Readable.from(range(), { objectMode: false });
  }
}
const unreadable = (text: string) => new TroubleError(422, 'unreadable', text);
const NO_ARCHIVE =
  'That is not an export of an organisation, or it is damaged. Choose the file that “Export the organisation” made.';

/** An archive as it came: nothing of it is believed before `check` has gone through it. */
export class ArchiveReader {
  private constructor(
    private readonly zip: Opened,
    private readonly entries: ReadonlyMap<string, Entry>,
    private readonly listed: ReadonlyMap<string, string>,
  ) {}
  /** @throws TroubleError 422 where it is none, or was changed */
  static async open(job: Job, bytes: number): Promise<ArchiveReader> {
    let zip: Opened;
    const entries = new Map<string, Entry>();
    try {
      zip = await fromRandomAccessReaderPromise(new Pieces(job), bytes, {
        lazyEntries: true,
        autoClose: false,
      });
      for await (const entry of zip.eachEntry()) {
        if (entries.size >= MOST_FILES || entries.has(entry.fileName)) throw new Error('too many or twice');
        if (entry.uncompressedSize > MOST_RATIO * Math.max(entry.compressedSize, 1000))
          throw new Error('unpacks without end');
        entries.set(entry.fileName, entry);
      }
    } catch {
      throw unreadable(NO_ARCHIVE);
    }
    const first = entries.get(MANIFEST);
    if (!first || first.uncompressedSize > MOST_MANIFEST) throw unreadable(NO_ARCHIVE);
    const content: Uint8Array[] = [];
    const bare = new ArchiveReader(zip, entries, new Map());
    for await (const chunk of bare.read(MANIFEST)) content.push(chunk);
    const { manifest, faults } = readManifest(Buffer.concat(content), MOST_MANIFEST);
    if (!manifest || faults.length)
      throw unreadable(`The file was changed or is no export: ${faults.join(' ')}`);
    const listed = new Map(Object.entries(manifest.files));
    for (const name of entries.keys())
      if (name !== MANIFEST && !listed.has(name))
        throw unreadable(`The file was changed: ${name} was added to it.`);
    for (const name of listed.keys())
      if (!entries.has(name)) throw unreadable(`The file was changed: ${name} is missing from it.`);
    return new ArchiveReader(zip, entries, listed);
  }
  /** A file of it, and once it has been read to its end, whether it is what was signed. @throws TroubleError 422 */
  async *read(name: string): AsyncGenerator<Uint8Array> {
    const entry = this.entries.get(name);
    if (!entry) throw unreadable(`${name} is missing from the file.`);
    const hash = createHash('sha256');
    try {
      for await (const chunk of (await this.zip.openReadStreamPromise(entry)) as AsyncIterable<Buffer>) {
        hash.update(chunk);
        yield chunk;
      }
    } catch {
      throw unreadable(`The file was changed or is damaged: ${name} cannot be unpacked.`);
    }
    const due = this.listed.get(name);
    if (due !== undefined && hash.digest('hex') !== due)
      throw unreadable(`The file was changed: ${name} is not as it was written.`);
  }
  /** A file of it as rows. @throws TroubleError 422 */
  async *rows(name: string): AsyncGenerator<Record<string, unknown>> {
    const decoder = new TextDecoder('utf-8', { fatal: true });
    let rest = '';
    const legible = <T>(read: () => T): T => {
      try {
        return read();
      } catch {
        throw unreadable(`The file was changed or is damaged: ${name} cannot be read.`);
      }
    };
    const parse = (line: string) => legible(() => JSON.parse(line) as Record<string, unknown>);
    for await (const chunk of this.read(name)) {
      const lines = (rest + legible(() => decoder.decode(chunk, { stream: true }))).split('\n');
      rest = lines.pop()!;
      if (rest.length > MOST_LINE) throw unreadable(NO_ARCHIVE);
      for (const line of lines) if (line) yield parse(line);
    }
    if (rest) yield parse(rest);
  }
  close(): void {
    this.zip.close();
  }
}
