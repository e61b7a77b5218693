import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { withFills } from '../../testing/edits.js';
import { makeTune } from '../../testing/made-tunes.js';
import { demo, DEMOS } from '../../testing/songs.js';
import { arrange, type Arrangement } from '../arrange/index.js';
import { midiOf } from '../pitch/pitch.js';
import { plainScore } from '../practice/score.js';
import { handsOf, newDocument, type Document } from '../song/index.js';
import { setSetting } from '../song/edits.js';
import { aloud, spokenWith } from '../words/index.js';
import { PACE } from './pace.js';
import type { LessonWishes } from './piece.js';
import { lessonScript } from './script.js';
import type { LessonScript } from './scene.js';

const WISHES: LessonWishes = { first: 'right', by: 'words', joins: 'chain' };
const TEXTURES = ['block', 'bass-chord-chord', 'shape-apart', 'one-five-eight'] as const;

const wishes = fc.record({
  first: fc.constantFrom('right' as const, 'left' as const),
  by: fc.constantFrom('words' as const, 'counts' as const),
  joins: fc.constantFrom('chain' as const, 'pairs' as const),
});

/** Made songs for different hands, with block chords or a pattern, in short parts or in long ones that the pianist made. */
const songs = fc
  .record({
    number: fc.nat(400),
    texture: fc.constantFrom(...TEXTURES),
    profile: fc.constantFrom('small' as const, 'medium' as const, 'large' as const),
    cuts: fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { maxLength: 2 }),
    long: fc.boolean(),
    filled: fc.boolean(),
  })
  .map(({ number, texture, profile, cuts, long, filled }): Document => {
    const { song } = makeTune(number);
    const plain = { ...newDocument(song), hands: handsOf(profile) };
    const bars = song.melody.map((n) => n.at);
    const ends = [...new Set([0, ...cuts.map((c) => bars[Math.floor(c * (bars.length - 1))]), song.length])].sort(
      (a, b) => a - b,
    );
    const parts = long ? ends.slice(1).map((end, i) => ({ start: ends[i], end })) : [];
    const dressed = setSetting({ ...plain, choices: { ...plain.choices, parts } }, null, 'texture', texture);
    return filled ? withFills(dressed) : dressed;
  });

const print = (pitches: readonly string[]) => pitches.map(midiOf).sort((a, b) => a - b).join(' '); // prettier-ignore

/** What is asked for and was not taught before: places of the right hand by their keys, chords of the left hand by theirs. */
function untaught({ parts, ...arrangement }: Arrangement, { chapters }: LessonScript): string[] {
  const plain = plainScore({ parts, ...arrangement });
  const keysAt = (hand: string, at: number) => plain.filter((n) => n.hand === hand && n.at === at).map((n) => n.pitch);
  const taught = new Set<string>();
  const missing: string[] = [];
  /** Where a place was learned: in the part that its own takes up, as often as that does so itself. */
  const learnedAt = (at: number): number[] => {
    const part = parts.find((p) => at >= p.start && at < p.end);
    const model = part?.repeats ? parts[part.repeats.part - 1] : null;
    return part && model ? [at, ...learnedAt(at - part.start + model.start)] : [at];
  };
  for (const scene of chapters.flatMap((c) => c.scenes)) {
    for (const { says, strikes, at } of scene.lines) {
      if (says.code === 'lesson.note') taught.add(`right ${at} ${print(strikes)}`);
      if (says.code === 'lesson.chord') taught.add(`left ${print(strikes)}`);
    }
    const { plays, asks } = scene;
    if (!plays || !asks || !plays.plain) continue;
    const inside = plain.filter(
      (n) => n.at >= plays.from && n.at < plays.to && (plays.hands === 'both' || plays.hands === n.hand),
    );
    for (const n of inside.filter((n) => n.hand === 'right')) {
      const keys = print(keysAt('right', n.at));
      if (!learnedAt(n.at).some((at) => taught.has(`right ${at} ${keys}`))) missing.push(`${scene.id}: ${n.pitch} at ${n.at}`);
    }
    for (const c of parts
      .flatMap((p) => p.chords)
      .filter((c) => !c.restruck && inside.some((n) => n.hand === 'left' && n.at === c.at)))
      if (!taught.has(`left ${print(c.pitches)}`)) missing.push(`${scene.id}: ${c.symbol} at ${c.at}`);
  }
  return missing;
}

describe('a lesson that plays itself', () => {
  it('teaches every note and every chord before it asks for it, each note once, in places that the fingers have, in five minutes a part', () => {
    fc.assert(
      fc.property(songs, wishes, (document, wished) => {
        const arrangement = arrange(document);
        const script = lessonScript(arrangement, wished);
        expect(untaught(arrangement, script)).toEqual([]);
        const scenes = script.chapters.flatMap((c) => c.scenes);
        const named = scenes.flatMap((s) => s.lines.filter((l) => l.says.code === 'lesson.note').map((l) => l.at));
        expect(new Set(named).size).toBe(named.length);
        expect(new Set(scenes.map((s) => s.id)).size).toBe(scenes.length);
        for (const { part, lines } of scenes)
          for (const { says } of lines) {
            if (says.code !== 'hand.starts' && says.code !== 'hand.goes') continue;
            expect(arrangement.parts[part - 1].places.map((p) => p.thumb)).toContain(says.thumb);
          }
        for (const c of script.chapters.filter((c) => c.title.code !== 'chapter.whole'))
          expect(c.seconds, c.id).toBeLessThanOrEqual(PACE.part);
      }),
      { numRuns: 40 },
    );
  });

  it('teaches every fill note by note before it is asked for, each once, and before the part that it belongs to', () => {
    let taught = 0;
    fc.assert(
      fc.property(songs, wishes, (document, wished) => {
        const arrangement = arrange(withFills(document));
        const { chapters } = lessonScript(arrangement, wished);
        const known = new Set<string>();
        for (const { kind, lines, plays, asks } of chapters.flatMap((c) => c.scenes)) {
          if (kind === 'fill') {
            const name = lines.flatMap((l) => l.strikes).join(' ');
            expect(known.has(name)).toBe(false);
            known.add(name);
            taught++;
          }
          if (!asks || !plays || plays.plain) continue;
          const rooms = arrangement.parts
            .flatMap((p) => p.rooms)
            .filter((r) => r.at >= plays.from && r.at < plays.to)
            .flatMap((r) => r.offers.filter((o) => o.kind === r.chosen));
          for (const fill of rooms) expect(known).toContain(fill.notes.map((n) => n.pitch).join(' '));
        }
        expect(chapters.filter((c) => c.title.code !== 'chapter.whole' && c.seconds > PACE.part)).toEqual([]);
      }),
      { numRuns: 25 },
    );
    expect(taught).toBeGreaterThan(20);
  });

  it('begins with the hand that is wished for, and joins in pairs where they are', () => {
    const arrangement = arrange(demo('lamps-across-the-sound.letters'));
    const kinds = (wished: LessonWishes) =>
      lessonScript(arrangement, wished).chapters.flatMap((c) => c.scenes.map((s) => s.kind));
    expect(kinds(WISHES).slice(0, 7)).toEqual(['opening', 'names', 'right', 'chords', 'left', 'meet', 'together']);
    expect(kinds({ ...WISHES, first: 'left' }).slice(0, 7)).toEqual([
      'opening',
      'chords',
      'left',
      'names',
      'right',
      'meet',
      'together',
    ]);
    const joined = (joins: LessonWishes['joins']) =>
      lessonScript(arrangement, { ...WISHES, joins }).chapters.flatMap((c) => c.scenes.flatMap((s) => s.lines.flatMap(({ says }) => says.code === 'lesson.so-far' ? [[says.from, says.to]] : []))); // prettier-ignore
    expect(joined('chain')).toEqual([[1, 2], [1, 3], [1, 4], [1, 5]]); // prettier-ignore
    expect(joined('pairs')).toEqual([[1, 2], [3, 4]]); // prettier-ignore
  });

  it('only names what repeats, with where it differs, and plays the hardest spot three times', () => {
    const arrangement = arrange(demo('harbour-glass.abc'));
    const scenes = lessonScript(arrangement, WISHES).chapters.flatMap((c) => c.scenes);
    for (const { number, repeats } of arrangement.parts.filter((p) => p.repeats?.kind === 'exact'))
      expect(
        scenes.filter((s) => s.part === number && s.kind !== 'so-far' && s.kind !== 'dressed').map((s) => s.kind),
        `part ${number} of ${repeats?.part}`,
      ).toEqual(['repeat']);
    const spot = scenes.filter((s) => s.kind === 'hardest');
    expect(spot).toHaveLength(arrangement.hardest ? 3 : 0);
    expect(new Set(spot.map((s) => `${s.plays?.from}-${s.plays?.to}`)).size).toBe(1);
    expect(spot[0].part).toBe(arrangement.hardest?.part);
  });

  it('meets on words where there are any, and on counts where these are wished for', () => {
    const arrangement = arrange(demo('lamps-across-the-sound.letters'));
    const meets = (by: LessonWishes['by']) =>
      lessonScript(arrangement, { ...WISHES, by }).chapters.flatMap((c) => c.scenes).find((s) => s.kind === 'meet')?.lines.map((l) => spokenWith('letters').fact(l.says)); // prettier-ignore
    expect(meets('words')?.[0]).toBe('Bar 1: G minor falls on “lamps”, together with G.');
    expect(meets('counts')?.[0]).toBe('Bar 1: G minor falls on 1, together with G.');
  });

  it('teaches a pattern after the block chords, with its strikes, once', () => {
    const dressed = arrange(setSetting(demo('lamps-across-the-sound.letters'), null, 'texture', 'bass-chord-chord'));
    const { chapters } = lessonScript(dressed, WISHES);
    const patterns = chapters.flatMap((c) => c.scenes).filter((s) => s.kind === 'pattern');
    expect(patterns).toHaveLength(1);
    expect(patterns[0].lines.slice(1).map((l) => spokenWith('letters').fact(l.says))[0]).toBe('1: G');
    const titles = chapters.map((c) => c.title.code);
    expect(titles.indexOf('chapter.dressing')).toBeGreaterThan(titles.lastIndexOf('chapter.part'));
  });

  it('is said as a teacher would say it', () => {
    const say = spokenWith('letters');
    for (const name of DEMOS) {
      const script = lessonScript(arrange(demo(name)), WISHES);
      const lines = script.chapters.flatMap((c) => c.scenes).map((s) => s.lines.map((l) => aloud(say.fact(l.says))).join(' '));
      console.info(lines.join('\n'));
      for (const text of lines) {
        expect(text).not.toMatch(/undefined|null|NaN|[♭♯&]|\b[A-G](b|#)+\b|\b[A-G]\d/);
        expect(text.trim()).not.toBe('');
      }
    }
    expect(spokenWith('solfege').fact({ code: 'lesson.note', name: 'Bb', beside: [] })).toBe('si bémol');
    expect(spokenWith('german').fact({ code: 'lesson.note', name: 'Bb', beside: [] })).toBe('B');
  });
});
