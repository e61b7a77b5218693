import type { ScreenDescriptor } from '../../platform/screen';

export const intakeScreen: ScreenDescriptor = {
  order: 160,
  path: 'intake',
  name: $localize`Add a song`,
  keywords: $localize`open a file, paste ABC, type letters, play it in`,
  of: 'none',
  place: 'beside',
  ready: 'jh-play-in, .drop, h1',
  load: () => import('./intake').then((m) => m.Intake),
};
