import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { arrange } from '@joined-hands/core/arrange';
import { demo } from '../../../../../core/testing/songs';
import { after, atFirst, keepable, type IntakeEvent, type IntakeState, type ReadSong, type Way } from './state';

const ways: readonly Way[] = ['letters', 'abc', 'file', 'play'];
const song = (title: string): ReadSong => {
  const doc = demo('harbour-glass.abc');
  const titled = { ...doc, song: { ...doc.song, title } };
  return { document: titled, arrangement: arrange(titled), notices: [], questions: [], counted: [] };
};
const songs = [song('First'), song('Second')];

const event: fc.Arbitrary<IntakeEvent> = fc.oneof(
  fc.constantFrom(...ways).map((way): IntakeEvent => ({ type: 'choose', way })),
  fc.string().map((text): IntakeEvent => ({ type: 'begin', source: { kind: 'text', way: 'abc', text } })),
  fc.constant<IntakeEvent>({ type: 'wait', what: 'the text' }),
  fc.constant<IntakeEvent>({ type: 'refuse', sentence: 'Bar 2 has one count too many.' }),
  fc.constantFrom(...songs).map((read): IntakeEvent => ({ type: 'show', song: read })),
  fc.constant<IntakeEvent>({ type: 'answer', question: 'voice', value: '2' }),
  fc.constant<IntakeEvent>({ type: 'correct', facts: { title: 'Fog Bell' } }),
  fc.constant<IntakeEvent>({ type: 'empty' }),
);

const through = (events: readonly IntakeEvent[]): IntakeState => events.reduce(after, atFirst('letters'));

describe('bringing a song in', () => {
  it('keeps the last song that was read, but not on the desk while something after it is refused', () => {
    fc.assert(
      fc.property(fc.array(event), (events) => {
        const state = through(events);
        const begun = events.findLastIndex(
          (e, i) => e.type === 'empty' || (e.type === 'choose' && e.way !== through(events.slice(0, i)).way),
        );
        const shown = events.findLast((e, i) => e.type === 'show' && i > begun);
        expect(state.song).toBe(shown?.type === 'show' ? shown.song : null);
        const said = events.findLast((e) => ['refuse', 'show', 'wait', 'choose', 'empty'].includes(e.type));
        expect(keepable(state)).toBe(said?.type === 'refuse' ? null : state.song);
      }),
    );
  });

  it('answers questions and takes corrections for one source only', () => {
    fc.assert(
      fc.property(fc.array(event), fc.constantFrom(...ways), (events, way) => {
        const state = through([...events, { type: 'choose', way }]);
        expect(state).toMatchObject({ way, source: null, answers: {}, facts: {}, step: { is: 'waiting' } });
      }),
    );
    const asked = through([
      { type: 'answer', question: 'voice', value: '2' },
      { type: 'answer', question: 'stacks', value: 'lowest' },
      { type: 'answer', question: 'voice', value: '1' },
      { type: 'correct', facts: { title: 'Fog Bell' } },
      { type: 'correct', facts: { composer: 'the ferry band' } },
    ]);
    expect(asked.answers).toEqual({ voice: '1', stacks: 'lowest' });
    expect(asked.facts).toEqual({ title: 'Fog Bell', composer: 'the ferry band' });
  });
});
