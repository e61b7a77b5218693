import type { ScreenDescriptor } from '../../platform/screen';

export const logScreen: ScreenDescriptor = {
  order: 80,
  path: 'log',
  name: $localize`Log`,
  keywords: $localize`what was practised, minutes, tempo reached`,
  of: 'none',
  place: 'application',
  ready: 'h1',
  load: () => import('./log').then((m) => m.LogScreen),
};
