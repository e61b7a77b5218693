import type { Route, Routes } from '@angular/router';
import type { ScreenDescriptor } from '../platform/screen';
import { SCREENS } from './screens';

/** The addresses of a screen: with a song, without one, and what it was called before. */
function routesOf({ path, name, of, formerly, load }: ScreenDescriptor): Routes {
  const route = (address: string): Route => ({ path: address, title: $localize`${name} · Joined Hands`, loadComponent: load });
  return [
    ...(of === 'song' ? [] : [route(path)]),
    ...(of === 'none' ? [] : [route(`${path}/:id`)]),
    ...(formerly ? [{ path: `${formerly}/:id`, redirectTo: `${path}/:id` }] : []),
  ];
}

/** What there is only while the page is developed. */
const developing: Routes = ngDevMode
  ? [{ path: 'gallery', title: $localize`Gallery`, loadComponent: () => import('../ui/gallery/gallery').then((m) => m.Gallery) }]
  : [];

export const routes: Routes = [
  { path: '', pathMatch: 'full', redirectTo: 'shelf' },
  ...SCREENS.flatMap(routesOf),
  ...developing,
  { path: '**', redirectTo: 'shelf' },
];
