import { describe, expect, it } from 'vitest';
import { demo } from '../../testing/songs.js';
import { readProject, writeProject } from '../formats/index.js';
import { MOST_VERSIONS, type Document } from '../song/decisions.js';
import { setChord, setSetting } from '../song/edits.js';
import { dropVersion, keepVersion, takeVersion } from '../song/versions.js';
import { arrange } from './arrange.js';
import { compareArrangements } from './compare.js';

const glass = demo('harbour-glass.abc');
const when = '2031-05-04T18:00:00.000Z';
const side = (document: Document) => ({ document, arrangement: arrange(document) });

describe('kept versions', () => {
  const plain = keepVersion(glass, 'Plain', when);
  const waltz = setSetting(plain, null, 'texture', 'bass-chord-chord');

  it('are taken up again as they stood, and none is lost by it', () => {
    const both = keepVersion(waltz, 'Waltz', when);
    const back = takeVersion(both, 'Plain');
    expect(back?.choices).toEqual(glass.choices);
    expect(back?.versions.map((v) => v.name)).toEqual(['Plain', 'Waltz']);
    expect(back && takeVersion(back, 'Waltz')?.choices.texture).toBe('bass-chord-chord');
    expect(takeVersion(both, 'Nobody')).toBeNull();
  });

  it('are replaced by one of the same name, forgotten one by one, and not endless', () => {
    expect(keepVersion(waltz, ' Plain ', when).versions.map((v) => v.choices.texture)).toEqual(['bass-chord-chord']);
    expect(dropVersion(plain, 'Plain').versions).toEqual([]);
    let many = glass;
    for (let k = 0; k <= MOST_VERSIONS; k++) many = keepVersion(many, `Take ${k}`, when);
    expect(many.versions.length).toBe(MOST_VERSIONS);
    expect(many.versions[0].name).toBe('Take 1');
  });

  it('travel in the project file', () => {
    const read = readProject(writeProject(waltz));
    expect(read).toEqual({ ok: true, document: waltz });
  });
});

describe('two versions side by side', () => {
  it('are the same in every bar where nothing was changed', () => {
    const { bars, a, b } = compareArrangements(side(glass), side(glass));
    expect(bars.length).toBe(arrange(glass).bars.length);
    expect(bars.every((bar) => bar.differs.length === 0)).toBe(true);
    expect(a).toEqual(b);
  });

  it('say bar by bar what differs', () => {
    const { parts } = arrange(glass);
    const [chord] = parts[3].chords;
    const { bars } = compareArrangements(side(glass), side(setChord(glass, chord.at, 'Dm')));
    const changed = bars.filter((bar) => bar.differs.length > 0);
    const own = changed.find((bar) => bar.start <= chord.at && bar.differs.includes('chords'));
    expect(own).toMatchObject({ b: { chords: expect.stringContaining('Dm') as string } });
    expect(changed.length).toBeLessThan(bars.length / 2);
  });

  it('compare difficulty, motion and notes', () => {
    const busy = setSetting(glass, null, 'texture', 'rise-and-fall');
    const { a, b, bars } = compareArrangements(side(glass), side(busy));
    expect(b.difficulty).toBeGreaterThan(a.difficulty);
    expect(b.notes).toBeGreaterThan(a.notes);
    expect(a.motion).toBe(arrange(glass).totals.leftTravel);
    expect(bars.filter((bar) => bar.differs.includes('texture')).length).toBe(bars.length);
  });
});
