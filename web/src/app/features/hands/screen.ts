import type { ScreenDescriptor } from '../../platform/screen';

export const handsScreen: ScreenDescriptor = {
  order: 140,
  path: 'hands',
  name: $localize`Hands`,
  keywords: $localize`measure the reach, keyboard size`,
  of: 'song',
  place: 'beside',
  ready: 'jh-keyboard',
  load: () => import('./hands').then((m) => m.HandsScreen),
};
