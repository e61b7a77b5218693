import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demo } from '../../testing/songs.js';
import { LEVELS, type Document } from '../song/decisions.js';
import {
  passageAt,
  setChordSchool,
  setPassage,
  setSetting,
  settingAt,
  withChoices,
  type InheritableSettings,
} from '../song/edits.js';
import { chordSpans } from '../song/song.js';
import { settingsOf, stretchAt, voicingWishes } from './settings.js';

const HARBOUR = demo('harbour-glass.abc');
const { length } = HARBOUR.song;

/** A document with settings of its own in some stretches and for the whole song. */
const documents: fc.Arbitrary<Document> = fc
  .array(
    fc.record({
      range: fc.option(fc.tuple(fc.nat(length - 1), fc.integer({ min: 1, max: length })), { nil: null }),
      octave: fc.integer({ min: -2, max: 2 }),
      loudness: fc.constantFrom('pp', 'mf', 'ff'),
      level: fc.constantFrom(...LEVELS),
      texture: fc.constantFrom('block', 'held-block', 'bass-chord', 'free'),
      school: fc.constantFrom('root', 'shell', null),
    }),
    { maxLength: 6 },
  )
  .map((edits) =>
    edits.reduce((doc: Document, { range, school, ...wishes }) => {
      const stretch = range && { start: range[0], end: Math.min(length, range[0] + range[1]) };
      const set = Object.entries(wishes).reduce(
        (d, [wish, value]) => setSetting(d, stretch, wish as keyof InheritableSettings, value as never),
        doc,
      );
      return stretch ? setPassage(set, stretch, { school }) : set;
    }, HARBOUR),
  );

describe('what was chosen, read once', () => {
  it('holds at every place what the document says of it', () => {
    fc.assert(
      fc.property(documents, fc.array(fc.nat(length - 1), { minLength: 5, maxLength: 5 }), (doc, places) => {
        const settings = settingsOf(doc);
        expect(settings.stretches[0].start).toBe(0);
        for (const at of [0, ...places, length]) {
          const here = stretchAt(settings, at);
          expect(at >= here.start && at < here.end).toBe(true);
          for (const wish of ['octave', 'loudness', 'level', 'timing', 'ending'] as const)
            expect(here[wish]).toBe(settingAt(doc, at, wish));
          expect(here.heldOver).toBe(settingAt(doc, at, 'texture') === 'held-block');
          const textured = settingAt(doc, at, 'texture') === 'bass-chord' && ['triads', 'full'].includes(here.level);
          expect(here.texture?.id ?? null).toBe(textured ? 'bass-chord' : null);
          const wished = passageAt(doc.choices.passages, at)?.school ?? 'close';
          if (here.level === 'full') expect(here.school).toBe(wished);
          if (here.level === 'bass') expect(here.school).toBe('single-bass');
        }
      }),
      { numRuns: 60 },
    );
  });

  it('plays no more than its layers: chords, two notes, a bass, the tune alone', () => {
    const muted = (...layers: Document['choices']['muted']) => settingsOf(withChoices(HARBOUR, { muted: layers }));
    const level = (settings: ReturnType<typeof muted>) => stretchAt(settings, 0).level;
    expect([muted(), muted('block'), muted('block', 'two-note'), muted('block', 'two-note', 'bass')].map(level)).toEqual([
      'full',
      'two-note',
      'bass',
      'tune',
    ]);
    const waltz = setSetting(HARBOUR, null, 'texture', 'bass-chord');
    // A texture that is heard needs its chords; muted, it gives way to what is left.
    expect(level(settingsOf(withChoices(waltz, { muted: ['block'] })))).toBe('full');
    expect(level(settingsOf(withChoices(waltz, { muted: ['block', 'texture'] })))).toBe('two-note');
  });

  it('lets a chord speak before its stretch, and its level before both', () => {
    const [first, second] = HARBOUR.song.chords;
    const part = { start: 0, end: length };
    const doc = setChordSchool(setPassage(HARBOUR, part, { school: 'open' }), second.at, 'octave');
    const at = (of: Document, place: number) =>
      voicingWishes(settingsOf(of), { spans: chordSpans(of.song), sections: [], repeats: [] }).schoolAt(place);
    expect([at(doc, first.at), at(doc, second.at)]).toEqual(['open', 'octave']);
    const light = setSetting(doc, part, 'level', 'bass');
    expect([at(light, first.at), at(light, second.at)]).toEqual(['single-bass', 'single-bass']);
  });

  it('plays neither texture, harmony nor fills under a voice or in outline', () => {
    for (const playMode of ['sing-along', 'outline'] as const) {
      const { plays, stretches } = settingsOf(withChoices(setSetting(HARBOUR, null, 'texture', 'bass-chord'), { playMode }));
      expect(plays).toMatchObject({ tune: true, block: true, texture: false, harmony: false, fills: false });
      expect(stretches[0].texture).toBeNull();
    }
  });
});
