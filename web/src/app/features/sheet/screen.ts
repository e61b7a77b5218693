import type { ScreenDescriptor } from '../../platform/screen';

export const sheetScreen: ScreenDescriptor = {
  order: 40,
  path: 'sheet',
  name: $localize`Sheet`,
  keywords: $localize`print, worksheet, save as MusicXML, MIDI, ABC`,
  of: 'song',
  place: 'song',
  ready: '[data-testid=page] svg',
  load: () => import('./sheet').then((m) => m.Sheet),
};
