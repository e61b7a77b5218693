import type { SongCard } from '@joined-hands/core/sheet';
import type { ShelfEntry } from '../../platform/storage/library';

/** How the shelf is laid out. */
export const ORDERS = [
  { id: 'newest', text: $localize`newest first` },
  { id: 'changed', text: $localize`last changed first` },
  { id: 'title', text: $localize`by title` },
  { id: 'own', text: $localize`my own order` },
] as const;
export type ShelfOrder = (typeof ORDERS)[number]['id'];

/** Tags as one types them, each once: "lounge, Sunday" to two. */
export function tagsOf(text: string): string[] {
  const tags = text.split(',').map((t) => t.trim().replace(/\s+/g, ' ').slice(0, 40));
  return [...new Set(tags.filter((t) => t !== ''))];
}

const plain = (text: string): string =>
  text
    .normalize('NFKD')
    .replace(/\p{Mark}/gu, '')
    .toLowerCase();

/** True where a song answers to every word that is looked for: in its title, its tags, its key or meter, or its chords. */
export function isFound(
  about: (card: SongCard) => string,
  { card }: ShelfEntry,
  tags: readonly string[],
  looked: string,
): boolean {
  const words = plain(looked).split(/\s+/).filter(Boolean);
  if (words.length === 0) return true;
  if (!card) return false;
  const all = plain([card.title, ...tags, about(card), ...card.chords].join(' '));
  return words.every((w) => all.includes(w));
}

/** Songs in an order; those whose cards are still being made come last by title, those that came since before one's own order. */
export function inOrder(songs: readonly ShelfEntry[], order: ShelfOrder, own: readonly string[] = []): readonly ShelfEntry[] {
  if (order === 'newest') return songs;
  if (order === 'changed') return [...songs].sort((a, b) => b.updatedAt - a.updatedAt);
  if (order === 'title') return [...songs].sort((a, b) => (a.card?.title ?? '\uffff').localeCompare(b.card?.title ?? '\uffff'));
  const place = new Map(own.map((id, i) => [id, i]));
  return [...songs].sort((a, b) => (place.get(a.id) ?? -1) - (place.get(b.id) ?? -1));
}

/** The whole shelf's ids after a song was put in the place of another; songs that are not shown keep theirs. */
export function putAt(ids: readonly string[], song: string, place: string): readonly string[] {
  const [from, to] = [ids.indexOf(song), ids.indexOf(place)];
  if (from < 0 || to < 0) return ids;
  return ids.toSpliced(from, 1).toSpliced(to, 0, song);
}
