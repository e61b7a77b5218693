import type { ScreenDescriptor } from '../../platform/screen';

export const deskScreen: ScreenDescriptor = {
  order: 20,
  path: 'desk',
  name: $localize`Desk`,
  keywords: $localize`parts, chords, inversions, fingers, textures and fills`,
  of: 'song',
  place: 'song',
  ready: '[data-testid=stack]',
  load: () => import('./desk').then((m) => m.Desk),
};
