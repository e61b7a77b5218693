import { accompanimentScreen } from '../features/accompaniment/screen';
import { deskScreen } from '../features/desk/screen';
import { drillsScreen } from '../features/drills/screen';
import { firstLookScreen } from '../features/first-look/screen';
import { handsScreen } from '../features/hands/screen';
import { intakeScreen } from '../features/intake/screen';
import { keyScreen } from '../features/key/screen';
import { lessonScreen } from '../features/lesson/screen';
import { logScreen } from '../features/log/screen';
import { playersScreen } from '../features/players/screen';
import { passOnScreen } from '../features/pass-on/screen';
import { patternsScreen } from '../features/patterns/screen';
import { receivedScreen } from '../features/received/screen';
import { rehearseScreen } from '../features/rehearse/screen';
import { sheetScreen } from '../features/sheet/screen';
import { shelfScreen } from '../features/shelf/screen';
import { versionsScreen } from '../features/versions/screen';
import type { ScreenDescriptor } from '../platform/screen';

/** Every screen: those of an open song in the order of the work, then those of the application, then those that are opened from others. */
export const SCREENS: readonly ScreenDescriptor[] = [
  firstLookScreen,
  deskScreen,
  accompanimentScreen,
  sheetScreen,
  rehearseScreen,
  shelfScreen,
  drillsScreen,
  logScreen,
  playersScreen,
  lessonScreen,
  passOnScreen,
  versionsScreen,
  keyScreen,
  handsScreen,
  patternsScreen,
  intakeScreen,
  receivedScreen,
];
