import { ENGLISH } from '../words/index.js';
import { strToU8, unzipSync, zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { demo, DEMOS } from '../../testing/songs.js';
import { readArchive, writeArchive } from './index.js';

const shelf = [...DEMOS, DEMOS[0]].map(demo);

describe('a shelf as one file', () => {
  it('comes back song by song, two of one name too', () => {
    const read = readArchive(writeArchive(shelf));
    expect(read).toEqual({ ok: true, documents: shelf, tags: [[], [], [], []], faults: [] });
  });

  it('keeps the tags of its songs, and takes none that are none', () => {
    const [first, second, third] = shelf;
    const tagged = [{ ...first, tags: ['Fridays', 'for two'] }, second, { ...third, tags: 'quay' }];
    const read = readArchive(writeArchive(tagged));
    expect(read.ok && read.tags).toEqual([['Fridays', 'for two'], [], []]);
    expect(read.ok && read.documents).toEqual([first, second, third]);
  });

  it('lets one damaged song not keep the others out', () => {
    const files = unzipSync(writeArchive(shelf));
    files['harbour-glass.json'] = strToU8('{');
    const read = readArchive(zipSync(files));
    expect(read.ok && [read.documents.length, read.faults]).toEqual([
      3,
      [{ name: 'harbour-glass.json', fault: { code: 'project.not-json' } }],
    ]);
  });

  it.each([
    [new Uint8Array([1, 2, 3]), 'not a shelf file'],
    [zipSync({ 'a.txt': strToU8('x') }), 'no songs in this file'],
    [zipSync({ 'a.json': new Uint8Array(210_000_000) }, { level: 9 }), 'more than a shelf holds'],
  ])('is refused with the cause %#', (data, cause) => {
    const read = readArchive(data);
    expect(read.ok ? '' : ENGLISH.fact(read.fault)).toContain(cause);
  });
});
