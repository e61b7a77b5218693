import type { ScreenDescriptor } from '../../platform/screen';

export const passOnScreen: ScreenDescriptor = {
  order: 110,
  path: 'pass-on',
  name: $localize`Pass it on`,
  keywords: $localize`share, send, link, code, task for a pupil, homework, log for a teacher`,
  of: 'song',
  place: 'beside',
  ready: '[data-testid=link]',
  load: () => import('./pass-on').then((m) => m.PassOn),
};
