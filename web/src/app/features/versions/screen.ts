import type { ScreenDescriptor } from '../../platform/screen';

export const versionsScreen: ScreenDescriptor = {
  order: 120,
  path: 'versions',
  name: $localize`Versions`,
  keywords: $localize`compare, go back to an earlier state`,
  of: 'song',
  place: 'beside',
  ready: 'h1',
  load: () => import('./versions').then((m) => m.VersionsScreen),
};
