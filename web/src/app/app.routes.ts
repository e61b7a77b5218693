import type { Routes } from '@angular/router';

export const routes: Routes = [
  { path: '', pathMatch: 'full', redirectTo: 'shelf' },
  { path: 'shelf', title: 'Shelf · Joined Hands', loadComponent: () => import('./shelf/shelf').then((m) => m.Shelf) },
  { path: 'intake', title: 'New song · Joined Hands', loadComponent: () => import('./intake/intake').then((m) => m.Intake) },
  { path: 'desk/:id', title: 'Desk · Joined Hands', loadComponent: () => import('./desk/desk').then((m) => m.Desk) },
  { path: 'look/:id', title: 'First look · Joined Hands', loadComponent: () => import('./look/look').then((m) => m.Look) },
  { path: 'key/:id', title: 'Choose a key · Joined Hands', loadComponent: () => import('./key/key').then((m) => m.KeyScreen) },
  { path: 'sheet/:id', title: 'Sheet · Joined Hands', loadComponent: () => import('./sheet/sheet').then((m) => m.Sheet) },
  { path: 'hands/:id', title: 'Hands · Joined Hands', loadComponent: () => import('./hands/hands').then((m) => m.HandsScreen) },
  { path: 'plan/:id', title: 'Plan · Joined Hands', loadComponent: () => import('./plan/plan').then((m) => m.PlanScreen) },
  {
    path: 'figures/:id',
    title: 'Figures · Joined Hands',
    loadComponent: () => import('./figures/figures').then((m) => m.FiguresScreen),
  },
  {
    path: 'versions/:id',
    title: 'Versions · Joined Hands',
    loadComponent: () => import('./versions/versions').then((m) => m.VersionsScreen),
  },
  {
    path: 'rehearse/:id',
    title: 'Rehearse · Joined Hands',
    loadComponent: () => import('./rehearse/rehearse').then((m) => m.Rehearse),
  },
  { path: 'log', title: 'Practice log · Joined Hands', loadComponent: () => import('./log/log').then((m) => m.LogScreen) },
  { path: 'drills', title: 'Drills · Joined Hands', loadComponent: () => import('./drills/drills').then((m) => m.DrillsScreen) },
  {
    path: 'drills/:id',
    title: 'Drills · Joined Hands',
    loadComponent: () => import('./drills/drills').then((m) => m.DrillsScreen),
  },
  { path: '**', redirectTo: 'shelf' },
];
