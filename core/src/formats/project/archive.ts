import { strToU8, zipSync } from 'fflate';
import * as z from 'zod';
import '../../zod.js';
import type { Document } from '../../song/decisions.js';
import { decodeText } from '../text.js';
import { BadZip, unzip, type ZipEntry } from '../zip.js';
import { line } from '../../song/song.js';
import { projectText } from '../../song/project-text.js';
import { readProject, type ProjectFault } from './project.js';

/** Most songs and bytes of an archive. */
const MOST = { songs: 2000, bytes: 200_000_000 } as const;

/** What a song is tagged with on the shelf, where it has some. */
const Tagged = z.object({ tags: z.array(line(40).min(1)).max(40).catch([]) });

/** Writes documents as one archive: a ZIP of project files, with tags where they have some. What was saved and cannot be read goes in as it is. */
export function writeArchive(documents: readonly unknown[]): Uint8Array {
  const names = new Set<string>();
  const files = documents.map((doc): [string, Uint8Array] => {
    const title = (doc as { song?: { title?: unknown } } | null)?.song?.title;
    const plain =
      (typeof title === 'string' ? title : '')
        .slice(0, 80)
        .replace(/[^\p{L}\p{N}]+/gu, '-')
        .replace(/^-|-$/g, '')
        .toLowerCase() || 'song';
    let name = `${plain}.json`;
    for (let n = 2; names.has(name); n++) name = `${plain}-${n}.json`;
    names.add(name);
    return [name, strToU8(projectText(doc))];
  });
  return zipSync(Object.fromEntries(files), { level: 6 });
}

/** Why a file is no archive of songs. */
export type ArchiveFault = { readonly code: 'archive.too-large' | 'archive.damaged' | 'archive.empty' };

/** What an archive held: the songs that could be read, and the files that could not, with what is wrong with each. */
export type ReadArchive =
  | {
      readonly ok: true;
      readonly documents: readonly Document[];
      /** The tags of each document, none for most. */
      readonly tags: readonly (readonly string[])[];
      readonly faults: readonly { readonly name: string; readonly fault: ProjectFault }[];
    }
  | { readonly ok: false; readonly fault: ArchiveFault };

/** Reads an archive of project files. One damaged song does not keep the others out. */
export function readArchive(data: Uint8Array): ReadArchive {
  let files: ZipEntry[];
  try {
    files = unzip(data, { files: MOST.songs, bytes: MOST.bytes, wanted: (name) => name.endsWith('.json') });
  } catch (error) {
    const large = error instanceof BadZip && error.why === 'too large';
    return { ok: false, fault: { code: large ? 'archive.too-large' : 'archive.damaged' } };
  }
  if (files.length === 0) return { ok: false, fault: { code: 'archive.empty' } };
  const documents: Document[] = [];
  const tags: (readonly string[])[] = [];
  const faults: { name: string; fault: ProjectFault }[] = [];
  for (const { name, data: bytes } of files) {
    const text = decodeText(bytes);
    const read = readProject(text);
    if (read.ok) {
      documents.push(read.document);
      tags.push(Tagged.parse(JSON.parse(text)).tags);
    } else faults.push({ name, fault: read.fault });
  }
  return { ok: true, documents, tags, faults };
}
