import type { ScreenDescriptor } from '../../platform/screen';

export const rehearseScreen: ScreenDescriptor = {
  path: 'rehearse',
  name: $localize`Rehearse`,
  keywords: $localize`practise step by step, today’s plan`,
  of: 'song',
  place: 'song',
  ready: '[data-testid=step]',
  load: () => import('./rehearse').then((m) => m.Rehearse),
};
