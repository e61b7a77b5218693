import type { ScreenDescriptor } from '../../platform/screen';

export const keyScreen: ScreenDescriptor = {
  order: 130,
  path: 'key',
  name: $localize`Choose a key`,
  keywords: $localize`transpose the song, an easier key, higher, lower`,
  of: 'song',
  place: 'beside',
  ready: 'table',
  load: () => import('./key').then((m) => m.KeyScreen),
};
