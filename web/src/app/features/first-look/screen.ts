import type { ScreenDescriptor } from '../../platform/screen';

export const firstLookScreen: ScreenDescriptor = {
  order: 10,
  path: 'look',
  name: $localize`First look`,
  keywords: $localize`what the song asks for: hardest part, range, key`,
  of: 'song',
  place: 'song',
  ready: 'h1',
  load: () => import('./first-look').then((m) => m.FirstLookScreen),
};
