import type { ScreenDescriptor } from '../../platform/screen';

export const patternsScreen: ScreenDescriptor = {
  order: 150,
  path: 'patterns',
  name: $localize`Your patterns`,
  keywords: $localize`write a left-hand pattern, count by count`,
  of: 'song',
  place: 'beside',
  ready: 'h1',
  formerly: 'figures',
  load: () => import('./patterns').then((m) => m.PatternsScreen),
};
