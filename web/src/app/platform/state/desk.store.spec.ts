// @vitest-environment happy-dom
import { signal } from '@angular/core';
import { arrange } from '@joined-hands/core/arrange';
import { applyEdit, type Document, type Edit } from '@joined-hands/core/song';
import { ENGLISH } from '@joined-hands/core/words';
import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { edits } from '../../../../../core/testing/edits';
import { demo } from '../../../../../core/testing/songs';
import { TestBed } from '../../../../testing/bed';
import { heldBack } from '../../../../testing/held';
import { emptyStorage } from '../../../../testing/storage';
import { standInWorkers } from '../../../../testing/workers';
import { Library } from '../storage/library';
import { Tabs } from '../storage/tabs';
import { Toasts } from '../toasts';
import { Workers } from '../workers/workers';
import { DeskStore } from './desk.store';

const GLASS = demo('harbour-glass.abc');
const ROOT: Edit = { code: 'edit.school', range: null, school: 'root' };
const FALLING: Edit = { code: 'edit.bass', range: null, bass: 'falling' };
const CHORD = { code: 'edit.chord', at: 0, symbol: 'Em7' } satisfies Edit;

let standIn: ReturnType<typeof standInWorkers>;
let tabs: {
  isReadOnly: ReturnType<typeof signal<boolean>>;
  opened: (string | null)[];
  changed: (id: string, news: 'saved' | 'removed', edit: Edit | null) => void;
};
let library: Library;
let desk: InstanceType<typeof DeskStore>;
let id: string;

beforeEach(async () => {
  emptyStorage();
  standIn = standInWorkers();
  tabs = { isReadOnly: signal(false), opened: [], changed: () => undefined };
  Object.assign(tabs, {
    open: (song: string | null) => tabs.opened.push(song),
    tell: () => undefined,
    takeOver: () => tabs.isReadOnly.set(false),
  });
  TestBed.configureTestingModule({
    providers: [
      { provide: Workers, useValue: standIn.workers },
      { provide: Tabs, useValue: tabs },
    ],
  });
  library = TestBed.inject(Library);
  desk = TestBed.inject(DeskStore);
  id = await library.add(GLASS);
  await desk.open(id);
});
afterEach(() => TestBed.resetTestingModule());

const undone = () => nameOf(desk.undoable());
const redone = () => nameOf(desk.redoable());
const nameOf = (edit: Parameters<typeof ENGLISH.fact>[0] | null) => edit && ENGLISH.fact(edit);

const stored = async (): Promise<unknown> => {
  await desk.saved();
  return (await library.get(id))?.document;
};

describe('the open song', () => {
  it('is shown arranged, with something to look at first', () => {
    expect(desk.document()).toEqual(GLASS);
    expect(desk.currentPart()?.number).toBe(1);
    expect(desk.selectedChord()?.at).toBe(desk.currentPart()?.chords[0].at);
    expect(tabs.opened).toEqual([id]);
  });

  it('is said to be missing where it is not on the shelf', async () => {
    await desk.open('nowhere');
    expect([desk.missing(), desk.document(), desk.id()]).toEqual([true, null, null]);
    await desk.open(id);
    expect(desk.missing()).toBe(false);
  });

  it('goes back and forth through any edits to the very same documents, and each is saved', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(edits(GLASS, arrange(GLASS)), { minLength: 1, maxLength: 6 }), async (row) => {
        desk.close();
        await desk.open(id);
        const seen: (Document | null)[] = [desk.document()];
        for (const edit of row) {
          const before = desk.document();
          await desk.edit(edit);
          if (desk.document() !== before) seen.push(desk.document());
        }
        expect(await stored()).toEqual(seen.at(-1));
        for (const document of seen.slice(0, -1).reverse()) {
          await desk.undo();
          expect(desk.document()).toBe(document);
        }
        expect(await stored()).toEqual(seen[0]);
        for (const document of seen.slice(1)) {
          await desk.redo();
          expect(desk.document()).toBe(document);
        }
        expect(desk.redoable()).toBeNull();
        for (let i = 1; i < seen.length; i++) await desk.undo();
        expect(await stored()).toEqual(GLASS);
      }),
      { numRuns: 8 },
    );
  });

  it('keeps a title that is put right at the desk through later edits, and gives it back with the step', async () => {
    const before = desk.document()?.song.title;
    await desk.edit({ code: 'edit.facts', change: { title: 'Harbour Glass by night' } });
    await desk.edit({ code: 'edit.balance', percent: 40 });
    expect(await stored()).toMatchObject({ song: { title: 'Harbour Glass by night' } });
    await desk.undo();
    await desk.undo();
    expect(await stored()).toMatchObject({ song: { title: before } });
  });

  it('names the step back, and forgets the way forth after another edit', async () => {
    await desk.edit(ROOT);
    expect(undone()).toBe('root position');
    await desk.undo();
    expect([undone(), redone()]).toEqual([null, 'root position']);
    await desk.edit(CHORD);
    expect([undone(), redone()]).toEqual(['write Em7', null]);
  });

  it('takes edits made while it is still being arranged on top of each other, and shows the last', async () => {
    standIn.hold();
    const first = desk.edit(CHORD);
    const second = desk.edit(ROOT);
    standIn.letGo();
    await Promise.all([first, second]);
    expect(desk.document()?.choices.chords).toHaveLength(1);
    expect(desk.document()?.choices.school).toBe('root');
    expect(await stored()).toEqual(desk.document());
    expect(desk.arrangement()).toEqual(arrange(desk.document() ?? GLASS));
    await desk.undo();
    expect(desk.document()?.choices.school).not.toBe('root');
    expect(desk.document()?.choices.chords).toHaveLength(1);
  });

  it('offers an edit of a part to its repeats, as one more step', async () => {
    const at = desk.currentPart()?.chords[1].at ?? 0;
    await desk.edit({ code: 'edit.chord', at, symbol: 'Dm9' });
    expect(desk.linked()?.parts).toEqual([3, 7]);
    await desk.applyToRepeats();
    expect(desk.linked()).toBeNull();
    expect(desk.document()?.choices.chords).toHaveLength(3);
    expect(undone()).toBe('write Dm9, in repeats too');
    await desk.undo();
    expect(desk.document()?.choices.chords).toHaveLength(1);
  });

  it('is not changed while another tab works on it, and says how it can be', async () => {
    tabs.isReadOnly.set(true);
    const edit = () => desk.edit(ROOT);
    await edit();
    await desk.undo();
    expect(desk.document()).toEqual(GLASS);
    const toast = TestBed.inject(Toasts).shown().at(-1);
    expect(toast?.text).toContain('being edited in another tab');
    toast?.action?.run();
    await edit();
    expect(undone()).toBe('root position');
  });

  it('follows what another tab saves, and that can be taken back', async () => {
    const theirs = applyEdit(GLASS, CHORD);
    await library.save(id, theirs);
    tabs.changed(id, 'saved', CHORD);
    await expect.poll(() => desk.document()).toEqual(theirs);
    expect(undone()).toBe('write Em7, in another tab');
    await desk.undo();
    expect(desk.document()).toEqual(GLASS);
  });

  it('shows a change once it is kept, so that what is seen is there after the page was left', async () => {
    const { held, letGo } = heldBack(library.save.bind(library));
    library.save = held;
    const edit = desk.edit(ROOT);
    // Arranged at once here; the storage has not answered when it is read.
    expect((await library.get(id))?.document).toEqual(GLASS);
    expect(desk.document()).toEqual(GLASS);
    expect(desk.atRisk()).toBe(true);
    letGo();
    await edit;
    expect(desk.document()?.choices.school).toBe('root');
    expect((await library.get(id))?.document).toEqual(desk.document());
    expect(desk.atRisk()).toBe(false);
  });

  it('says that a change could not be kept, and shows it, until one could be', async () => {
    const save = library.save.bind(library);
    library.save = () => Promise.reject(new DOMException('full', 'QuotaExceededError'));
    await desk.edit(ROOT);
    await desk.saved();
    expect(desk.unsaved()).toContain('no room left');
    expect(desk.atRisk()).toBe(true);
    expect(desk.document()?.choices.school).toBe('root');
    library.save = save;
    await desk.undo();
    expect(await stored()).toEqual(GLASS);
    expect(desk.unsaved()).toBeNull();
    expect(desk.atRisk()).toBe(false);
  });

  it('says that it was taken off the shelf elsewhere, and is put back with every change since', async () => {
    await library.remove(id);
    await desk.edit(ROOT);
    await desk.saved();
    expect([desk.gone(), desk.unsaved(), desk.atRisk()]).toEqual([true, expect.stringContaining('taken off the shelf'), true]);
    expect(desk.document()?.choices.school).toBe('root');
    await desk.putBack();
    expect([desk.gone(), desk.unsaved(), desk.atRisk()]).toEqual([false, null, false]);
    expect(await stored()).toEqual(desk.document());
    await desk.undo();
    expect(await stored()).toEqual(GLASS);
  });

  it('knows at once that another tab took it off, and that it put it back', async () => {
    await library.remove(id);
    tabs.changed(id, 'removed', null);
    await expect.poll(() => desk.gone()).toBe(true);
    await library.putBack(id);
    tabs.changed(id, 'saved', null);
    await expect.poll(() => desk.gone()).toBe(false);
  });

  it('takes a name that another tab gave it, at every step of its history', async () => {
    await desk.edit(ROOT);
    await library.rename(id, 'Glass, quietly');
    // The next edit is made before the news arrives: it does not bring the old name back.
    await desk.edit(FALLING);
    await desk.saved();
    tabs.changed(id, 'saved', null);
    await expect.poll(() => desk.document()?.song.title).toBe('Glass, quietly');
    expect(undone()).toBe('falling bass');
    await desk.undo();
    await desk.undo();
    expect(desk.document()).toEqual({ ...GLASS, song: { ...GLASS.song, title: 'Glass, quietly' } });
    expect(await stored()).toEqual(desk.document());
  });

  it.each(['failed', 'late'] as const)('takes a change back that cannot be arranged: %s', async (why) => {
    await desk.edit(ROOT);
    const before = desk.document();
    standIn.refuse(why);
    await desk.edit(FALLING);
    standIn.refuse(null);
    expect([desk.document(), undone(), await stored()]).toEqual([before, 'root position', before]);
    expect(TestBed.inject(Toasts).shown().at(-1)?.text).toContain('The song is as it was before');
    await desk.edit(FALLING);
    expect(desk.document()?.choices.bass).toBe('falling');
  });

  it('takes back every change under way where none of them can be arranged', async () => {
    standIn.refuse('late');
    await Promise.all([desk.edit(ROOT), desk.edit(FALLING)]);
    standIn.refuse(null);
    expect([desk.document(), undone(), await stored()]).toEqual([GLASS, null, GLASS]);
  });

  it('keeps a change that is made while it looks at what another tab did', async () => {
    await library.rename(id, 'Glass, quietly');
    standIn.hold();
    tabs.changed(id, 'saved', null);
    const edit = desk.edit(ROOT);
    standIn.letGo();
    await edit;
    await expect.poll(() => desk.document()?.song.title).toBe('Glass, quietly');
    expect([desk.document()?.choices.school, undone()]).toEqual(['root', 'root position']);
    expect(await stored()).toEqual(desk.document());
  });

  it('shows the parts at work first where the worker sends them, and then the whole', async () => {
    const near = arrange(applyEdit(GLASS, { ...CHORD, symbol: 'Dm9' }));
    const whole = arrange(applyEdit(GLASS, CHORD));
    standIn.answer('edit', () => ({ id: 1, change: { whole: near }, settled: false }));
    standIn.answer('settle', () => ({ id: 2, change: { whole }, settled: true }));
    standIn.hold();
    const edit = desk.edit(CHORD);
    standIn.letOne();
    await expect.poll(() => desk.arrangement()).toEqual(near);
    standIn.letGo();
    await edit;
    expect(desk.arrangement()).toEqual(whole);
    expect(await stored()).toEqual(applyEdit(GLASS, CHORD));
  });

  it('takes a change back of which the whole cannot be arranged', async () => {
    standIn.answer('edit', () => ({
      id: 1,
      change: { whole: arrange(applyEdit(GLASS, { ...CHORD, symbol: 'Dm9' })) },
      settled: false,
    }));
    standIn.answer('settle', () => {
      throw new Error('no');
    });
    const edit = desk.edit(CHORD);
    standIn.answer('edit', null);
    await edit;
    expect([desk.document(), await stored()]).toEqual([GLASS, GLASS]);
    expect(desk.arrangement()).toEqual(arrange(GLASS));
  });

  it('says why it cannot be opened, gives out what is saved, and can be tried again', async () => {
    desk.close();
    standIn.refuse('late');
    await desk.open(id);
    expect(desk.unopened()).toMatchObject({
      id,
      title: 'Harbour Glass',
      saved: GLASS,
      why: expect.stringContaining('took too long'),
    });
    standIn.refuse(null);
    await desk.open(id);
    expect([desk.unopened(), desk.document()]).toEqual([null, GLASS]);
    const newer = { ...GLASS, version: 99 };
    await library.save(id, newer as unknown as Document);
    desk.close();
    await desk.open(id);
    expect(desk.unopened()).toMatchObject({ saved: newer, why: expect.stringContaining('newer version of Joined Hands (99)') });
  });

  it('keeps what is looked at in its place from view to view', () => {
    const chord = desk.currentPart()?.chords[1];
    desk.select({ kind: 'chord', at: chord?.at ?? -1 });
    desk.setView('right');
    const note = desk.selectedNote();
    expect(note && chord && note.at + note.length > chord.at).toBe(true);
    desk.setView('left');
    expect(desk.selectedChord()?.at).toBe(chord?.at);
    desk.choosePart(2);
    expect(desk.selection()).toEqual({ kind: 'chord', at: desk.currentPart()?.chords[0].at });
  });
});
