import { describe, expect, it } from 'vitest';
import { arrange } from '@joined-hands/core/arrange';
import { midiOf } from '@joined-hands/core/pitch';
import { applyEdit } from '@joined-hands/core/song';
import { demo } from '../../../../../core/testing/songs';
import { scheduleSounds, type ScheduleOptions } from './schedule';

const arrangement = arrange(demo('lamps-across-the-sound.letters'));
const plan = (options: Partial<ScheduleOptions> = {}, part = arrangement.parts[1]) =>
  scheduleSounds(arrangement, part, {
    hands: 'both',
    plain: false,
    scope: 'part',
    tempo: 60,
    countIn: false,
    click: false,
    ...options,
  });
const keys = (p: ReturnType<typeof plan>) => p.sounds.filter((s) => s.midi !== null);

describe('what is heard', () => {
  it('is the part at its tempo, a quarter note a second at 60', () => {
    const { sounds, length } = plan();
    expect(length).toBe(12);
    expect(sounds[0]).toMatchObject({ time: 0, midi: midiOf('Bb4') });
    expect(plan({ tempo: 120 }).length).toBe(6);
  });

  it('is one hand when one is asked for, and the tune is louder', () => {
    const both = keys(plan());
    const [right, left] = [keys(plan({ hands: 'right' })), keys(plan({ hands: 'left' }))];
    expect(right.length + left.length).toBe(both.length);
    expect(right.length).toBe(arrangement.parts[1].melody.length);
    expect(right[0].loudness).toBeGreaterThan(left[0].loudness);
  });

  it('runs back to back up to this part when asked', () => {
    expect(plan({ scope: 'to-here' }).from).toBe(0);
    expect(keys(plan({ scope: 'to-here' })).length).toBe(arrangement.score.filter((n) => n.part <= 2).length);
  });

  it('counts a full bar in and then up to the pick-up', () => {
    const counted = plan({ countIn: true });
    expect(counted.lead).toBe(5);
    expect(counted.sounds.filter((s) => s.midi === null).map((s) => s.time)).toEqual([0, 1, 2, 3, 4]);
    expect(keys(counted)[0].time).toBe(5);
  });

  it('clicks on every beat, the first of the bar louder', () => {
    const clicks = plan({ click: true }).sounds.filter((s) => s.midi === null);
    expect(clicks).toHaveLength(12);
    expect(clicks.filter((c) => c.loudness > 0.7).map((c) => c.time)).toEqual([1, 4, 7, 10]);
  });

  it('has the small notes of the tune just before it, where the tune itself is heard', () => {
    const doc = demo('lamps-across-the-sound.letters');
    const [first, ...rest] = doc.song.melody;
    const graced = { ...doc, song: { ...doc.song, melody: [first, { ...rest[0], graces: ['F#5', 'G5'] }, ...rest.slice(1)] } };
    const small = (changed: typeof doc, hands: ScheduleOptions['hands'] = 'both') => {
      const played = arrange(changed);
      const [part] = played.parts;
      const options = { hands, plain: false, scope: 'part', tempo: 60, countIn: false, click: false } as const;
      const { sounds } = scheduleSounds(played, part, options);
      return sounds.filter((s) => s.duration < 0.08).map((s) => [s.midi, Math.round(100 * (rest[0].at / 10080 - s.time))]);
    };
    const heard = [
      [midiOf('F#5'), 14],
      [midiOf('G5'), 7],
    ];
    expect(small(graced)).toEqual(heard);
    expect(small(graced, 'right')).toEqual(heard);
    expect([small(graced, 'left'), small(graced, 'none'), small(doc)]).toEqual([[], [], []]);
    expect(small(applyEdit(graced, { code: 'edit.play-mode', mode: 'sing-along' }))).toEqual([]);
  });
});
