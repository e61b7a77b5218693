import type { ScreenDescriptor } from '../../platform/screen';

export const receivedScreen: ScreenDescriptor = {
  order: 170,
  path: 'received',
  name: $localize`A link`,
  keywords: $localize`what someone sent you`,
  of: 'none',
  place: 'beside',
  ready: 'h1',
  load: () => import('./received').then((m) => m.Received),
};
