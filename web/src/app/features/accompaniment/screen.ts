import type { ScreenDescriptor } from '../../platform/screen';

export const accompanimentScreen: ScreenDescriptor = {
  order: 30,
  path: 'accompaniment',
  name: $localize`Accompaniment`,
  keywords: $localize`a texture, loudness and ending for every part`,
  of: 'song',
  place: 'song',
  ready: 'table',
  formerly: 'plan',
  load: () => import('./accompaniment').then((m) => m.AccompanimentScreen),
};
