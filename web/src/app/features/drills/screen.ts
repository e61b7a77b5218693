import type { ScreenDescriptor } from '../../platform/screen';

export const drillsScreen: ScreenDescriptor = {
  order: 70,
  path: 'drills',
  name: $localize`Drills`,
  keywords: $localize`scales, cadences, inversions, a warm-up`,
  of: 'either',
  place: 'application',
  ready: 'h1',
  load: () => import('./drills').then((m) => m.DrillsScreen),
};
