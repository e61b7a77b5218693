import type { Type } from '@angular/core';

/** What a screen says of itself: its address, the header, the finder and the tests' list are made of it. */
export interface ScreenDescriptor {
  /** Its place among all: those of an open song in the order of the work, those of the application, those that others open. */
  readonly order: number;
  /** The first part of its address. */
  readonly path: string;
  readonly name: string;
  /** What else one may look for it by in the finder. */
  readonly keywords: string;
  /** Whether it works on a song, on one where its address names one, or on none. */
  readonly of: 'song' | 'either' | 'none';
  /** Where it is reached from: the header of an open song, the application's own header, or another screen and the menus. */
  readonly place: 'song' | 'application' | 'beside';
  /** An element that is there once the screen is whole. */
  readonly ready: string;
  /** What it was called in addresses before. */
  readonly formerly?: string;
  readonly load: () => Promise<Type<unknown>>;
}
