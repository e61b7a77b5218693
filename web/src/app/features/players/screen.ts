import type { ScreenDescriptor } from '../../platform/screen';

export const playersScreen: ScreenDescriptor = {
  order: 90,
  path: 'players',
  name: $localize`Players`,
  keywords: $localize`who plays now, class, pupils, family, for everyone`,
  of: 'either',
  place: 'application',
  ready: 'h1',
  load: () => import('./players').then((m) => m.Players),
};
