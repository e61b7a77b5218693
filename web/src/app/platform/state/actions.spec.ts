// @vitest-environment happy-dom
import { EnvironmentInjector, createEnvironmentInjector, runInInjectionContext, signal } from '@angular/core';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { TestBed } from '../../../../testing/bed';
import { Actions, keyOf, type Action } from './actions';

let actions: Actions;
let done: string[];

beforeEach(() => {
  actions = TestBed.inject(Actions);
  done = [];
});
afterEach(() => TestBed.resetTestingModule());

const does = (name: string, ...keys: string[]): Action => ({ name, keys, run: () => done.push(name) });

/** A screen that offers actions until it is left. */
function screen(offers: () => readonly Action[]): EnvironmentInjector {
  const injector = createEnvironmentInjector([], TestBed.inject(EnvironmentInjector));
  runInInjectionContext(injector, () => actions.register(offers));
  return injector;
}

/** Presses a key where the given markup has its last element; answers whether the browser still does its own with it. */
function press(key: string, how: KeyboardEventInit & { in?: string } = {}): boolean {
  document.body.innerHTML = how.in ?? '<main></main>';
  const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...how });
  const all = document.body.querySelectorAll('*');
  all[all.length - 1].addEventListener('keydown', (e) => actions.press(e as KeyboardEvent));
  return all[all.length - 1].dispatchEvent(event);
}

describe('actions', () => {
  it('are done by their keys, and the browser leaves those alone', () => {
    screen(() => [does('play', ' '), does('undo', 'Ctrl+z'), does('redo', 'Ctrl+Shift+z', 'Ctrl+y')]);
    expect(press(' ')).toBe(false);
    expect(press('z', { ctrlKey: true })).toBe(false);
    expect(press('z', { metaKey: true })).toBe(false);
    expect(press('Z', { ctrlKey: true, shiftKey: true })).toBe(false);
    expect(press('y', { ctrlKey: true })).toBe(false);
    expect(press('z')).toBe(true);
    expect(done).toEqual(['play', 'undo', 'undo', 'redo', 'redo']);
  });

  it('of an inner screen come before those of the outer one, and go when it is left', () => {
    screen(() => [does('outer', 'a'), does('everywhere', 'b')]);
    const inner = screen(() => [does('inner', 'a')]);
    press('a');
    press('b');
    expect(actions.all().map((a) => a.name)).toEqual(['inner', 'outer', 'everywhere']);
    inner.destroy();
    press('a');
    expect(done).toEqual(['inner', 'everywhere', 'outer']);
    expect(actions.all().map((a) => a.name)).toEqual(['outer', 'everywhere']);
  });

  it('follow what can be done at the moment', () => {
    const open = signal(false);
    screen(() => (open() ? [does('close', 'Escape')] : []));
    expect(press('Escape')).toBe(true);
    open.set(true);
    expect(press('Escape')).toBe(false);
    expect(done).toEqual(['close']);
  });

  it('leave its keys to a field, an open menu, a dialog and a slider; with the control key only a field keeps them', () => {
    screen(() => [does('view', '1'), does('find', 'Ctrl+k')]);
    const places = {
      field: '<input>',
      menu: '<div role="menu"><p></p></div>',
      dialog: '<div role="dialog"><p></p></div>',
      slider: '<div role="slider"></div>',
    };
    for (const inside of Object.values(places)) press('1', { in: inside });
    expect(done).toEqual([]);
    press('k', { ctrlKey: true, in: places.field });
    expect(done).toEqual([]);
    for (const place of ['menu', 'dialog', 'slider'] as const) press('k', { ctrlKey: true, in: places[place] });
    expect(done).toEqual(['find', 'find', 'find']);
  });

  it('leave space and Enter to a button or a link that has the focus', () => {
    screen(() => [does('play', ' '), does('open', 'Enter'), does('view', '1')]);
    for (const inside of ['<button></button>', '<a href="#"></a>', '<div role="button"></div>']) {
      expect(press(' ', { in: inside })).toBe(true);
      expect(press('Enter', { in: inside })).toBe(true);
    }
    expect(done).toEqual([]);
    press('1', { in: '<button></button>' });
    expect(done).toEqual(['view']);
  });

  it('that are only told of are in the list and do nothing', () => {
    screen(() => [
      { name: 'Keys of the piano', keys: ['A to P'], run: null },
      { name: 'No key', run: () => done.push('x') },
    ]);
    press('A to P');
    expect(done).toEqual([]);
    expect(actions.shortcuts()).toEqual([{ name: 'Keys of the piano', key: 'A to P' }]);
  });

  it('show their keys as they are written on them', () => {
    const shown = [' ', 'ArrowLeft', 'Ctrl+k', 'Ctrl+Shift+z', 'r', '?', 'Escape'].map((key) => keyOf(does('', key)));
    expect(shown).toEqual(['Space', '←', 'Ctrl K', 'Ctrl Shift Z', 'R', '?', 'Escape']);
    expect(keyOf({ name: '', run: null })).toBe('');
  });
});
