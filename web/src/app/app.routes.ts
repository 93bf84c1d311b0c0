import type { Routes } from '@angular/router';

export const routes: Routes = [
  { path: '', title: 'Shelf · Diptychon', loadComponent: () => import('./shelf/shelf-page').then((m) => m.ShelfPage) },
  {
    path: 'movements',
    title: 'Movements · Diptychon',
    loadComponent: () => import('./movements/movements-page').then((m) => m.MovementsPage),
  },
  {
    path: 'workshop',
    title: 'Workshop · Diptychon',
    loadComponent: () => import('./workshop/workshop-page').then((m) => m.WorkshopPage),
  },
  { path: 'logbook', title: 'Logbook · Diptychon', loadComponent: () => import('./logbook/logbook-page').then((m) => m.LogbookPage) },
  { path: 'guide', title: 'Guide · Diptychon', loadComponent: () => import('./guide/guide-page').then((m) => m.GuidePage) },
  { path: 'practice', title: 'Practice · Diptychon', loadComponent: () => import('./guide/practice-page').then((m) => m.PracticePage) },
  { path: 'guide/:id', title: 'Guide · Diptychon', loadComponent: () => import('./guide/movement-guide').then((m) => m.MovementGuide) },
  { path: 'words', redirectTo: 'guide' },
  { path: 'card/:id', title: 'Bench · Diptychon', loadComponent: () => import('./bench/bench-page').then((m) => m.BenchPage) },
  { path: 'card/:id/make', title: 'Make · Diptychon', loadComponent: () => import('./make/make-page').then((m) => m.MakePage) },
  { path: 'card/:id/cutter', title: 'Cutter · Diptychon', loadComponent: () => import('./make/cutter-page').then((m) => m.CutterPage) },
  { path: 'card/:id/sheets', title: 'Sheets · Diptychon', loadComponent: () => import('./make/cutting-page').then((m) => m.CuttingPage) },
  { path: '**', redirectTo: '' },
];
