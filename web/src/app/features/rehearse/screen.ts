import type { ScreenDescriptor } from '../../platform/screen';

export const rehearseScreen: ScreenDescriptor = {
  order: 50,
  path: 'rehearse',
  name: $localize`Rehearse`,
  keywords: $localize`practise step by step, today’s plan`,
  of: 'song',
  place: 'song',
  ready: '[data-testid=step]',
  load: () => import('./rehearse').then((m) => m.Rehearse),
};
