import { describe, expect, it } from 'vitest';
import type { ShelfEntry } from '../../platform/storage/library';
import { inOrder, isFound, putAt, tagsOf } from './order';

const entry = (title: string, updatedAt: number, chords: readonly string[] = []): ShelfEntry => ({
  id: title,
  createdAt: 0,
  updatedAt,
  demo: false,
  card: { title, facts: null, chords, contour: [], fault: null },
});
const songs = [
  entry('Quay Étude', 1, ['Gm7']),
  entry('Harbour Glass', 3),
  entry('Lamps', 2),
  { ...entry('later', 9), card: null },
];
const titles = (list: readonly ShelfEntry[]) => list.map((s) => s.id);

describe('the shelf', () => {
  it('is laid out as it came, by the last change, or by title with unread songs at the end', () => {
    expect(titles(inOrder(songs, 'newest'))).toEqual(titles(songs));
    expect(titles(inOrder(songs, 'changed'))).toEqual(['later', 'Harbour Glass', 'Lamps', 'Quay Étude']);
    expect(titles(inOrder(songs, 'title'))).toEqual(['Harbour Glass', 'Lamps', 'Quay Étude', 'later']);
  });

  it('is laid out by hand: a song goes where another lies, and what came since is in front', () => {
    const own = putAt(['Lamps', 'Harbour Glass', 'Quay Étude'], 'Quay Étude', 'Lamps');
    expect(titles(inOrder(songs, 'own', own))).toEqual(['later', 'Quay Étude', 'Lamps', 'Harbour Glass']);
    expect(putAt(own, 'Quay Étude', 'Harbour Glass')).toEqual(['Lamps', 'Harbour Glass', 'Quay Étude']);
    expect(putAt(own, 'gone', 'Lamps')).toEqual(own);
  });

  it('finds a song by every word of its title, tags, key and chords, with accents or without', () => {
    const found = (looked: string, tags: readonly string[] = []) =>
      titles(songs.filter((s) => isFound(() => 'G minor · 3/4', s, s.id === 'Lamps' ? tags : [], looked)));
    expect(found('etude quay')).toEqual(['Quay Étude']);
    expect(found('gm7')).toEqual(['Quay Étude']);
    expect(found('sunday minor', ['Sunday lounge'])).toEqual(['Lamps']);
    expect(found('sunday major', ['Sunday lounge'])).toEqual([]);
    expect(found('  ')).toEqual(titles(songs));
  });

  it('takes tags as they are typed, each once', () => {
    expect(tagsOf(' lounge,  Sunday  evening,, lounge ')).toEqual(['lounge', 'Sunday evening']);
    expect(tagsOf(' , ')).toEqual([]);
  });
});
