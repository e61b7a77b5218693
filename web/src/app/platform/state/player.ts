import { HandsSchema, handsOf, type Hands } from '@joined-hands/core/song';
import * as z from 'zod';
import { SettingsSchema, type Settings } from './settings';

/** What each player has as they wish: how notes are named, how a song is learned, how much is practised a day. */
const WISHES = {
  noteNames: true,
  exactNames: true,
  learnBy: true,
  firstHand: true,
  stepOrder: true,
  joinOrder: true,
  minutes: true,
} as const;
const WishesSchema = SettingsSchema.pick(WISHES);
export type Wishes = z.infer<typeof WishesSchema>;

export const LONGEST_NAME = 40;

/** Someone who plays on this device. */
const PlayerSchema = z.object({
  id: z.string().min(1).max(80),
  /** Empty for the one whose device it is, until a name is given. */
  name: z.string().max(LONGEST_NAME).catch(''),
  /** Milliseconds since 1970, by which players stand in order. */
  createdAt: z.number().catch(0),
  /** Hands, keyboard and level as they usually are. */
  hands: HandsSchema.catch(() => handsOf()),
  /** The same where they differ in a song, by its id. */
  songs: z.record(z.string(), HandsSchema).catch({}),
  /** Null until they were ever told apart from those of others. */
  wishes: WishesSchema.nullable().catch(null),
  /** When the player was taken off the list, or null. */
  removedAt: z.number().nullable().catch(null),
});
export type PlayerRecord = z.infer<typeof PlayerSchema>;

/** Players as they were saved, the first one first; what is none is passed over. */
export function readPlayers(saved: readonly unknown[]): PlayerRecord[] {
  return inOrder(saved.map((data) => PlayerSchema.safeParse(data)).flatMap((read) => (read.success ? [read.data] : [])));
}

export const inOrder = (players: readonly PlayerRecord[]): PlayerRecord[] =>
  players.toSorted((a, b) => a.createdAt - b.createdAt || a.id.localeCompare(b.id));

/** The wishes among all settings. */
export function wishesIn(settings: Settings): Wishes {
  const { noteNames, exactNames, learnBy, firstHand, stepOrder, joinOrder, minutes } = settings;
  return { noteNames, exactNames, learnBy, firstHand, stepOrder, joinOrder, minutes };
}

/** The hands of a player in a song. */
export const handsIn = (player: PlayerRecord, song: string | null): Hands =>
  (song === null ? undefined : player.songs[song]) ?? player.hands;

/** True where two hands are the same, whatever the order in which they were written. */
export const sameHands = (a: Hands, b: Hands): boolean =>
  JSON.stringify(HandsSchema.parse(a)) === JSON.stringify(HandsSchema.parse(b));
