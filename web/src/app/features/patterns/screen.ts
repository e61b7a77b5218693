import type { ScreenDescriptor } from '../../platform/screen';

export const patternsScreen: ScreenDescriptor = {
  path: 'patterns',
  name: 'Your patterns',
  keywords: 'write a left-hand pattern, count by count',
  of: 'song',
  place: 'beside',
  ready: 'h1',
  formerly: 'figures',
  load: () => import('./patterns').then((m) => m.PatternsScreen),
};
