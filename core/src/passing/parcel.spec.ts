import fc from 'fast-check';
import { deflateSync, strToU8 } from 'fflate';
import { describe, expect, it } from 'vitest';
import { edits } from '../../testing/edits.js';
import { makeTune } from '../../testing/made-tunes.js';
import { demo, DEMOS } from '../../testing/songs.js';
import { arrange } from '../arrange/arrange.js';
import { readProject } from '../formats/index.js';
import { simulateLog } from '../practice/practised.js';
import { newDocument, type Document } from '../song/decisions.js';
import { applyEdit } from '../song/edit.js';
import { projectText } from '../song/project-text.js';
import { ENGLISH } from '../words/index.js';
import { readParcel, taskIn, writeParcel, type Parcel } from './parcel.js';

/** Made songs with choices made on them, as pianists have them. */
const SONGS = Array.from({ length: 12 }, (_, i) => {
  const document = newDocument(makeTune(7 * i).song);
  return { document, arrangement: arrange(document) };
});
const documents = fc
  .constantFrom(...SONGS)
  .chain(({ document, arrangement }): fc.Arbitrary<Document> =>
    fc.array(edits(document, arrangement), { maxLength: 6 }).map((all) => all.reduce(applyEdit, document)),
  );

const tasks = fc.record({
  // Lines of a note stay lines.
  note: fc
    .array(
      fc.string({ maxLength: 60 }).map((s) => s.replace(/\p{C}/gu, ' ')),
      { maxLength: 4 },
    )
    .map((all) => all.join('\n').trim()),
  items: fc.array(
    fc.record({
      kind: fc.constantFrom('right' as const, 'left' as const, 'slow' as const, 'join' as const),
      from: fc.integer({ min: 1, max: 40 }),
      to: fc.integer({ min: 1, max: 40 }),
      tempo: fc.integer({ min: 20, max: 300 }),
    }),
    { maxLength: 5 },
  ),
});

const packed = (content: unknown) => `1-${Buffer.from(deflateSync(strToU8(JSON.stringify(content)))).toString('base64url')}`;

/** What is said of a link that is refused: one sentence. */
function refusal(letters: string): string {
  const read = readParcel(letters);
  if (read.ok) throw new Error('It was opened.');
  const said = ENGLISH.fact(read.fault);
  expect(said).toMatch(/^[A-Z].{20,}\.$/);
  return said;
}

describe('a song that goes by a link', () => {
  it('comes out as it went in, with its choices and its task', () => {
    fc.assert(
      fc.property(documents, fc.option(tasks), (document, task) => {
        const parcel: Parcel = { kind: 'song', document, task };
        const letters = writeParcel(parcel);
        expect(letters).toMatch(/^1-[\w-]+$/);
        expect(readParcel(letters)).toEqual({ ok: true, parcel });
      }),
      { numRuns: 500 },
    );
  });

  it('is short enough for a code where it is a song of a page', () => {
    for (const name of DEMOS) expect(writeParcel({ kind: 'song', document: demo(name), task: null }).length).toBeLessThan(2300);
  });

  it('takes its task along in a file too, and a file without one, or with something else, has none', () => {
    fc.assert(
      fc.property(documents, tasks, (document, task) => {
        const file = projectText({ ...document, task });
        expect(taskIn(file)).toEqual(task);
        expect(readProject(file)).toEqual({ ok: true, document });
      }),
      { numRuns: 20 },
    );
    for (const odd of [demo(DEMOS[0]), { task: { note: 4 } }, { task: null }, null, 7])
      expect(taskIn(JSON.stringify(odd))).toBeNull();
    expect(taskIn('{')).toBeNull();
  });

  it('takes what was practised back', () => {
    const days = { today: new Date(2031, 4, 1), ago: [5, 2, 1], minutes: 12, warmUp: 'warm-up', seed: 3 };
    const passes = simulateLog(arrange(demo(DEMOS[0])), 'lamps', days);
    const parcel: Parcel = { kind: 'log', title: 'Lamps', from: 'Ines', passes };
    expect(readParcel(writeParcel(parcel))).toEqual({ ok: true, parcel });
  });

  it('is refused in one sentence where it is cut off, changed, too large, a bomb, newer, or something else', () => {
    const whole = writeParcel({ kind: 'song', document: demo(DEMOS[0]), task: null });
    fc.assert(
      fc.property(fc.integer({ min: 0, max: whole.length - 1 }), (length) => void refusal(whole.slice(0, length))),
      { numRuns: 100 },
    );
    fc.assert(
      fc.property(fc.integer({ min: 2, max: whole.length - 1 }), fc.constantFrom(...'Az09-_'), (at, letter) => {
        const read = readParcel(whole.slice(0, at) + letter + whole.slice(at + 1));
        if (!read.ok) expect(ENGLISH.fact(read.fault)).toMatch(/\.$/);
      }),
      { numRuns: 100 },
    );
    expect(refusal('1-' + 'A'.repeat(2_000_000))).toContain('more than a song');
    const bomb = Buffer.from(deflateSync(new Uint8Array(100_000_000))).toString('base64url');
    expect(refusal(`1-${bomb}`)).toContain('more than a song');
    expect(refusal(whole.replace('1-', '2-'))).toContain('newer version (2)');
    const newer = packed({ kind: 'song', song: { ...demo(DEMOS[0]), kind: 'joined-hands-project', version: 99 }, task: null });
    expect(refusal(newer)).toMatch(/newer version|not a project/);
    for (const odd of [
      null,
      [],
      'x',
      { kind: 'song' },
      { kind: 'song', song: null, task: null },
      { kind: 'log', title: 'x', passes: [{}] },
    ])
      refusal(packed(odd));
    for (const text of ['', '1-', 'javascript:alert(1)', '<script>', '1-%%%']) refusal(text);
  });
});
