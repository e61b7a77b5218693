import type { ScreenDescriptor } from '../../platform/screen';

export const shelfScreen: ScreenDescriptor = {
  order: 60,
  path: 'shelf',
  name: $localize`Shelf`,
  keywords: $localize`all songs, the bin`,
  of: 'none',
  place: 'application',
  ready: '[data-testid=song-card]',
  load: () => import('./shelf').then((m) => m.Shelf),
};
