import { describe, expect, it } from 'vitest';
import { search } from './search';

const entry = (name: string, hint = '') => ({ name, hint, run: () => undefined });
const entries = [
  entry('Start or stop', 'Space'),
  entry('Step to the next join', '→'),
  entry('Harbour Glass', 'song'),
  entry('Café at Nine', 'song'),
];
const names = (typed: string) => search(entries, typed).map((e) => e.name);

describe('what is typed', () => {
  it('finds what holds all of its words, from their beginnings, in any order', () => {
    expect(names('next join')).toEqual(['Step to the next join']);
    expect(names('join st')).toEqual(['Step to the next join']);
    expect(names('oin')).toEqual([]);
    expect(search([entry('Left hand: root position')], 'left hand: root').length).toBe(1);
  });

  it('finds by what a thing is, and past accents and capitals', () => {
    expect(names('song')).toEqual(['Harbour Glass', 'Café at Nine']);
    expect(names('CAFE')).toEqual(['Café at Nine']);
  });

  it('finds a screen by what is done there, after what is called so', () => {
    const all = [entry('Go to: Sheet', 'print, worksheet'), entry('Save the print'), entry('Print')];
    expect(search(all, 'print').map((e) => e.name)).toEqual(['Print', 'Save the print', 'Go to: Sheet']);
    expect(search(all, 'worksheet').map((e) => e.name)).toEqual(['Go to: Sheet']);
    const screens = [entry('Go to: Rehearse', 'today’s plan'), entry('Go to: Plan', 'a texture for every part')];
    expect(search(screens, 'Go to: Plan').map((e) => e.name)).toEqual(['Go to: Plan', 'Go to: Rehearse']);
  });

  it('puts first what begins with it, and shows everything where there is nothing', () => {
    expect(names('s')).toEqual(['Start or stop', 'Step to the next join', 'Harbour Glass', 'Café at Nine']);
    expect(search([entry('A song', ''), entry('Song sheet', '')], 'song').map((e) => e.name)).toEqual(['Song sheet', 'A song']);
    expect(names('  ')).toHaveLength(4);
  });
});
