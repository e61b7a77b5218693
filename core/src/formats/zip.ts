import { Inflate } from 'fflate';

/** A file inside a ZIP archive. */
export interface ZipEntry {
  readonly name: string;
  readonly data: Uint8Array;
}

/** Why an archive cannot be read: it is damaged, or it holds more than is allowed. */
export class BadZip extends Error {
  constructor(readonly why: 'damaged' | 'too large') {
    super(why);
  }
}

interface Limits {
  /** Most files that are read, and most bytes that all of them unpack to. */
  readonly files: number;
  readonly bytes: number;
  /** Which files are read. */
  readonly wanted: (name: string) => boolean;
}

/** Signatures of a file's head, of its line in the list at the end, and of the end of that list. */
const HEAD = 0x04034b50;
const LISTED = 0x02014b50;
const END = 0x06054b50;

/** Bytes that are unpacked at a time, so that what unpacks to more than it says is stopped early. */
const STEP = 2048;

/**
 * Unpacks the wanted files of a ZIP archive in the order of its list, every one of them where two have the same name. Each is unpacked
 * no further than the size it states, and its checksum is compared. Throws {@link BadZip}.
 */
export function unzip(data: Uint8Array, { files, bytes, wanted }: Limits): ZipEntry[] {
  const view = new DataView(data.buffer, data.byteOffset, data.byteLength);
  const damaged = (): never => {
    throw new BadZip('damaged');
  };
  const need = (at: number, length: number) => (at < 0 || at + length > data.length ? damaged() : at);
  const long = (at: number) => view.getUint32(need(at, 4), true);
  const short = (at: number) => view.getUint16(need(at, 2), true);
  const end = endOf(data, view) ?? damaged();
  const found: ZipEntry[] = [];
  let left = bytes;
  let at = long(end + 16);
  for (let n = short(end + 10); n > 0; n--) {
    if (long(at) !== LISTED) damaged();
    const [method, crc, packed, size] = [short(at + 10), long(at + 16), long(at + 20), long(at + 24)];
    const [nameLength, extra, comment, head] = [short(at + 28), short(at + 30), short(at + 32), long(at + 42)];
    const name = decoder.decode(data.subarray(need(at + 46, nameLength), at + 46 + nameLength));
    at += 46 + nameLength + extra + comment;
    if (!wanted(name)) continue;
    if (size > left || found.length === files) throw new BadZip('too large');
    left -= size;
    if (long(head) !== HEAD) damaged();
    const from = head + 30 + short(head + 26) + short(head + 28);
    const body = data.subarray(need(from, packed), from + packed);
    const content = method === 0 ? body : method === 8 ? inflate(body, size) : damaged();
    if (content.length !== size || crc32(content) !== crc) damaged();
    found.push({ name, data: content });
  }
  return found;
}

const decoder = new TextDecoder();

/** Where the end of the list of files begins; a comment of up to 65,535 bytes may follow it. */
function endOf(data: Uint8Array, view: DataView): number | null {
  const last = data.length - 22;
  for (let at = last; at >= Math.max(0, last - 65_535); at--) if (view.getUint32(at, true) === END) return at;
  return null;
}

function inflate(body: Uint8Array, size: number): Uint8Array {
  const content = new Uint8Array(size);
  let length = 0;
  const stream = new Inflate((piece) => {
    if (length + piece.length > size) throw new BadZip('damaged');
    content.set(piece, length);
    length += piece.length;
  });
  try {
    for (let at = 0; at < body.length || at === 0; at += STEP)
      stream.push(body.subarray(at, at + STEP), at + STEP >= body.length);
  } catch {
    throw new BadZip('damaged');
  }
  return content.subarray(0, length);
}

const TABLE = Uint32Array.from({ length: 256 }, (_, n) => {
  let c = n;
  for (let k = 0; k < 8; k++) c = c & 1 ? (c >>> 1) ^ 0xedb88320 : c >>> 1;
  return c;
});

/** The checksum of ZIP files (ISO 3309). */
function crc32(data: Uint8Array): number {
  let c = 0xffffffff;
  for (const byte of data) c = TABLE[(c ^ byte) & 0xff] ^ (c >>> 8);
  return (c ^ 0xffffffff) >>> 0;
}
