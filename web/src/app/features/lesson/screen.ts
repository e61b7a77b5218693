import type { ScreenDescriptor } from '../../platform/screen';

export const lessonScreen: ScreenDescriptor = {
  order: 100,
  path: 'lesson',
  name: $localize`Lesson`,
  keywords: $localize`teach me, play it for me, read it aloud, part by part`,
  of: 'song',
  place: 'beside',
  ready: '[data-testid=caption]',
  load: () => import('./lesson').then((m) => m.Lesson),
};
