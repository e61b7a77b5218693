import { deflateSync, Inflate, strFromU8, strToU8 } from 'fflate';
import * as z from 'zod';
import '../zod.js';
import { projectFrom, type ProjectFault } from '../formats/project/project.js';
import { PassSchema, type Pass } from '../log/log.js';
import { STEP_KINDS } from '../log/step.js';
import type { Document } from '../song/decisions.js';
import { PROJECT_KIND } from '../song/project-text.js';
import { line } from '../song/song.js';

/** Text of several lines, cut where it is too long; what cannot be printed is taken out. */
const lines = (most: number) =>
  z.string().overwrite((text) =>
    text
      .replace(/\r\n?/g, '\n')
      .replace(/[^\P{C}\n]/gu, ' ')
      .trim()
      .slice(0, most),
  );

/** A stretch to be practised: which parts, what of them, and up to which tempo in quarter notes a minute. */
const TaskItemSchema = z.object({
  kind: z.enum(STEP_KINDS),
  from: z.number().int().min(1).max(999),
  to: z.number().int().min(1).max(999),
  tempo: z.number().int().min(20).max(400),
});
export type TaskItem = z.infer<typeof TaskItemSchema>;

/** What a teacher wishes to be practised of a song until next time. */
const TaskSchema = z.object({ note: lines(500), items: z.array(TaskItemSchema).max(20) });
export type Task = z.infer<typeof TaskSchema>;

/** What goes from one pianist to another: a song, with a task where there is one; or what was practised of one, and by whom. */
export type Parcel =
  | { readonly kind: 'song'; readonly document: Document; readonly task: Task | null }
  | { readonly kind: 'log'; readonly title: string; readonly from: string; readonly passes: readonly Pass[] };

/** Why a link or a file is no parcel that can be opened. */
export type ParcelFault =
  | { readonly code: 'parcel.damaged' }
  | { readonly code: 'parcel.too-large' }
  | { readonly code: 'parcel.newer'; readonly version: string }
  | ProjectFault;

export type ReadParcel = { readonly ok: true; readonly parcel: Parcel } | { readonly ok: false; readonly fault: ParcelFault };

const VERSION = 1;

/** Letters that a link may have, and bytes that it may unpack to: many times what the longest song needs. */
const MOST = { letters: 1_000_000, bytes: 12_000_000 } as const;

/** Bytes that are unpacked at a time, so that what unpacks to too much is stopped early. */
const STEP = 4096;

const Envelope = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('song'), song: z.unknown(), task: TaskSchema.nullable() }),
  // Who practised is not known of logs that were sent before there were players.
  z.object({ kind: z.literal('log'), title: line(200), from: line(40).default(''), passes: z.array(PassSchema).max(20_000) }),
]);

/** A parcel as letters that an address holds behind its "#", which no browser ever sends: "1-" and its compressed content. */
export function writeParcel(parcel: Parcel): string {
  const content =
    parcel.kind === 'song' ? { kind: 'song', song: { kind: PROJECT_KIND, ...parcel.document }, task: parcel.task } : parcel;
  return `${VERSION}-${toLetters(deflateSync(strToU8(JSON.stringify(content)), { level: 9 }))}`;
}

/** Reads a parcel as {@link writeParcel} writes it. Whatever else it is given, it answers why not. */
export function readParcel(letters: string): ReadParcel {
  const refused = (fault: ParcelFault): ReadParcel => ({ ok: false, fault });
  if (letters.length > MOST.letters) return refused({ code: 'parcel.too-large' });
  const parts = /^(\d{1,4})-([\w-]+)$/.exec(letters.trim());
  if (!parts) return refused({ code: 'parcel.damaged' });
  const [, version, packed] = parts;
  if (Number(version) > VERSION) return refused({ code: 'parcel.newer', version });
  const bytes = unpacked(fromLetters(packed));
  if (bytes === 'too large') return refused({ code: 'parcel.too-large' });
  if (bytes === 'damaged') return refused({ code: 'parcel.damaged' });
  let content: unknown;
  try {
    content = JSON.parse(strFromU8(bytes));
  } catch {
    return refused({ code: 'parcel.damaged' });
  }
  const envelope = Envelope.safeParse(content);
  if (!envelope.success) return refused({ code: 'parcel.damaged' });
  if (envelope.data.kind === 'log') return { ok: true, parcel: envelope.data };
  const read = projectFrom(envelope.data.song);
  return read.ok ? { ok: true, parcel: { kind: 'song', document: read.document, task: envelope.data.task } } : read;
}

/** The task that a project file was given to take along; null where there is none, or it is no task. */
export function taskIn(text: string): Task | null {
  try {
    return TaskSchema.parse((JSON.parse(text) as { task?: unknown } | null)?.task);
  } catch {
    return null;
  }
}

/** What compressed bytes unpack to, as far as is allowed. */
function unpacked(packed: Uint8Array): Uint8Array | 'damaged' | 'too large' {
  const pieces: Uint8Array[] = [];
  let length = 0;
  let ended = false;
  const stream = new Inflate((piece, last) => {
    length += piece.length;
    if (length <= MOST.bytes) pieces.push(piece);
    ended ||= last;
  });
  try {
    for (let at = 0; at < packed.length && length <= MOST.bytes; at += STEP)
      stream.push(packed.subarray(at, at + STEP), at + STEP >= packed.length);
  } catch {
    return 'damaged';
  }
  if (length > MOST.bytes) return 'too large';
  if (!ended) return 'damaged';
  const whole = new Uint8Array(length);
  let at = 0;
  for (const piece of pieces) {
    whole.set(piece, at);
    at += piece.length;
  }
  return whole;
}

const DIGITS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789-_';

/** Bytes as letters, six bits each, of those that an address leaves as they are (RFC 4648, section 5). */
function toLetters(bytes: Uint8Array): string {
  let text = '';
  for (let i = 0; i < bytes.length; i += 3) {
    const three = (bytes[i] << 16) | ((bytes[i + 1] ?? 0) << 8) | (bytes[i + 2] ?? 0);
    const many = Math.min(3, bytes.length - i) + 1;
    for (let k = 0; k < many; k++) text += DIGITS[(three >> (18 - 6 * k)) & 63];
  }
  return text;
}

function fromLetters(text: string): Uint8Array {
  const bytes = new Uint8Array(Math.floor((text.length * 3) / 4));
  let [bits, held, at] = [0, 0, 0];
  for (const letter of text) {
    held = ((held << 6) | DIGITS.indexOf(letter)) & 0xffff;
    bits += 6;
    if (bits < 8) continue;
    bits -= 8;
    bytes[at++] = (held >> bits) & 255;
  }
  return bytes;
}
