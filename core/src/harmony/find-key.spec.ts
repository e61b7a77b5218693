import { describe, expect, it } from 'vitest';
import { makeTune } from '../../testing/made-tunes.js';
import { ENGLISH } from '../words/index.js';
import { nameOf, pitchClass } from '../pitch/pitch.js';
import { findKey, otherReading, rankKeys, type Evidence } from './find-key.js';
import { keyFromSignature, keyName, keysOf, MODES, parseKey, practisedScale, scaleOf, signatureOf, type Key } from './key.js';

/** The notes of a tune from their names, each as long as the next. */
const heard = (names: string): Evidence[] => names.split(' ').map((n) => ({ pitchClass: pitchClass(n), weight: 1 }));
const final = (names: string) => pitchClass(names.split(' ').at(-1) as string);
const found = (names: string, signature: number | null = null) => keyName(findKey(heard(names), final(names), signature));

describe('the modes of a key', () => {
  it('have their signature, their scale and their name in every key', () => {
    expect(scaleOf({ tonic: 'D', mode: 'dorian' })).toEqual(['D', 'E', 'F', 'G', 'A', 'B', 'C']);
    expect(scaleOf({ tonic: 'G', mode: 'mixolydian' })).toEqual(['G', 'A', 'B', 'C', 'D', 'E', 'F']);
    expect(scaleOf({ tonic: 'E', mode: 'phrygian' })).toEqual(['E', 'F', 'G', 'A', 'B', 'C', 'D']);
    expect(scaleOf({ tonic: 'F', mode: 'lydian' })).toEqual(['F', 'G', 'A', 'B', 'C', 'D', 'E']);
    expect(practisedScale({ tonic: 'A', mode: 'minor' })).toEqual(['A', 'B', 'C', 'D', 'E', 'F', 'G#']);
    for (const mode of MODES)
      for (let fifths = -7; fifths <= 7; fifths++) {
        const key = keyFromSignature(fifths, mode);
        const signs = scaleOf(key).reduce((sum, n) => sum + n.split('#').length - n.split('b').length, 0);
        expect([signatureOf(key), signs]).toEqual([fifths, fifths]);
        expect(parseKey(keyName(key))).toEqual(key);
      }
  });

  it('are written in twelve keys with at most six signs', () => {
    for (const mode of MODES) {
      const keys = keysOf(mode);
      expect(keys.map((k) => pitchClass(k.tonic))).toEqual([...Array(12).keys()]);
      for (const key of keys) expect(Math.abs(signatureOf(key))).toBeLessThanOrEqual(6);
    }
  });

  it.each([
    ['Ddor', 'D Dorian'],
    ['D Dorian', 'D Dorian'],
    ['Amix', 'A Mixolydian'],
    ['E phrygian', 'E Phrygian'],
    ['F lyd', 'F Lydian'],
    ['A aeolian', 'A minor'],
    ['C ionian', 'C major'],
    ['CM', 'C major'],
    ['Cm', 'C minor'],
  ])('are read from %s', (text, name) => expect(keyName(parseKey(text) as Key)).toBe(name));

  it('are refused where there is no such mode', () => expect(parseKey('C locomotive')).toBeNull());
});

describe('finding the key', () => {
  const DORIAN = 'D F A B A G F D E F G A C B A G A F D D';

  it('tells a Dorian from a minor and a Mixolydian from a major tune by one note of the scale', () => {
    expect(found(DORIAN)).toBe('D Dorian');
    expect(found(DORIAN.replaceAll('B', 'Bb'))).toBe('D minor');
    const major = 'G B D E D B C A G A B G F# G A F# G D G G';
    expect(found(major)).toBe('G major');
    expect(found(major.replaceAll('F#', 'F'))).toBe('G Mixolydian');
  });

  it('takes signature and last note as evidence, not as law', () => {
    // A tune that plainly is in D minor stays so under a signature without signs, and though it ends on its fifth.
    const minor = 'D F A G F E D C# D E F G A Bb A G F E D A';
    expect(found(minor, 0)).toBe('D minor');
    expect(found(minor, -1)).toBe('D minor');
    // A tune of five notes that leaves out what would decide is read by its signature.
    const five = 'D F G A C A G F D C D F G A G F D D';
    expect(found(five, 0)).toBe('D Dorian');
    expect(found(five, -1)).toBe('D minor');
  });

  it('knows the raised sixth and seventh of a minor key', () => {
    expect(found('A C E F E D C B A G# A B C D E F# G# A A')).toBe('A minor');
  });

  it('finds the mode of tunes that are made in it: 95 of 100', () => {
    let right = 0;
    const many = 300;
    for (let i = 0; i < many; i++) {
      const { song, key } = makeTune(i);
      const evidence = song.melody.map((n) => ({ pitchClass: pitchClass(nameOf(n.pitch)), weight: n.length }));
      const read = findKey(evidence, evidence[evidence.length - 1].pitchClass, null);
      if (read.mode === key.mode && pitchClass(read.tonic) === pitchClass(key.tonic)) right++;
    }
    expect(right / many).toBeGreaterThanOrEqual(0.95);
  });

  it('adds up, term by term', () => {
    for (const { score, terms } of rankKeys(heard(DORIAN), 2, 0))
      expect(terms.reduce((sum, t) => sum + t.worth, 0)).toBeCloseTo(score, 9);
  });
});

describe('another reading', () => {
  const said = (names: string, key: Key) => {
    const fact = otherReading(heard(names), final(names), key);
    return fact && ENGLISH.fact(fact);
  };

  it('is told with its reason where the tune speaks for it more than for the key that is written', () => {
    const tune = 'E G B C# B A G E F# G A B D C# B A B G E E';
    expect(said(tune, { tonic: 'E', mode: 'minor' })).toBe('The melody sounds more like E Dorian: it has C#.');
    expect(said(tune, { tonic: 'D', mode: 'major' })).toMatch(/^The melody sounds more like E Dorian: it ends on E and/);
  });

  it('is not told of a tune that is plainly in its key', () => {
    expect(said('C E G E F A G E D B C C G F E D C C', { tonic: 'C', mode: 'major' })).toBeNull();
  });
});
