import { grouped } from '@joined-hands/core/lists';
import { HandsSchema, type Hands } from '@joined-hands/core/song';
import type { Transaction } from 'dexie/dist/modern/dexie.mjs';

/** Whose everything is that was kept before there were several players. */
export const FIRST_PLAYER = 'first';

/** Settings that belonged to a song and belong to a player of it from now on: "task:song" becomes "task:player:song". */
const OF_A_PLAYER = ['task', 'lesson'] as const;

/** Where something of a song is kept for a player. */
export const keptFor = (what: (typeof OF_A_PLAYER)[number], player: string, song: string): string => `${what}:${player}:${song}`;

/**
 * Gives what one person kept on this device to a first player: every pass of the log, tasks, where lessons were left, and the hands
 * with which each song was arranged. The hands that most songs have are that player's; songs with others keep theirs.
 */
export async function giveToFirstPlayer(tx: Transaction): Promise<void> {
  await tx.table('passes').toCollection().modify({ player: FIRST_PLAYER });
  const settings = tx.table<{ key: string; value: unknown }, string>('settings');
  for (const what of OF_A_PLAYER) {
    for (const { key, value } of await settings.where('key').startsWith(`${what}:`).toArray()) {
      await settings.put({ key: keptFor(what, FIRST_PLAYER, key.slice(what.length + 1)), value });
      await settings.delete(key);
    }
  }
  const found: { readonly id: string; readonly hands: Hands; readonly name: string }[] = [];
  for (const table of ['songs', 'bin'])
    await tx.table<{ id: string; document: unknown }, string>(table).each(({ id, document }) => {
      const hands = handsIn(document);
      if (hands) found.push({ id, hands, name: JSON.stringify(hands) });
    });
  const [usual] = [...grouped(found, (f) => f.name).values()].reduce(
    (most, alike) => (alike.length > most.length ? alike : most),
    [],
  );
  if (!usual) return;
  const songs = Object.fromEntries(found.filter((f) => f.name !== usual.name).map((f) => [f.id, f.hands]));
  await tx
    .table('players')
    .put({ id: FIRST_PLAYER, name: '', createdAt: 0, hands: usual.hands, songs, wishes: null, removedAt: null });
}

/** The hands of a saved document; null where none can be read. */
function handsIn(document: unknown): Hands | null {
  try {
    const whole = typeof document === 'string' ? (JSON.parse(document) as unknown) : document;
    const read = HandsSchema.safeParse((whole as { hands?: unknown } | null)?.hands);
    return read.success ? read.data : null;
  } catch {
    return null;
  }
}
