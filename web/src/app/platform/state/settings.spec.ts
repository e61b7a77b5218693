import { describe, expect, it } from 'vitest';
import { SettingsSchema } from './settings';

describe('settings', () => {
  const usual = { theme: 'day', tempoPercent: 75, countIn: true, click: false, learnBy: 'words', paper: 'a4' };

  it('have a value for everything that was never set', () => {
    expect(SettingsSchema.parse({})).toMatchObject(usual);
    expect(Object.values(SettingsSchema.parse({}))).not.toContain(undefined);
  });

  it('keep what can be read and let go of what cannot', () => {
    const kept = { theme: 'evening', tempoPercent: 900, countIn: 'yes', paper: 'letter', more: 1 };
    expect(SettingsSchema.parse(kept)).toMatchObject({ ...usual, theme: 'evening', paper: 'letter' });
  });

  it('hold the tempo between 40 and 120 percent', () => {
    expect([39, 40, 120, 121].map((t) => SettingsSchema.parse({ tempoPercent: t }).tempoPercent)).toEqual([75, 40, 120, 75]);
  });
});
