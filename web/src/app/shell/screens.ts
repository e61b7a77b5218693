// Written by `npm run lists` from the files that it names: they say their order.
import { accompanimentScreen } from '../features/accompaniment/screen';
import { deskScreen } from '../features/desk/screen';
import { drillsScreen } from '../features/drills/screen';
import { firstLookScreen } from '../features/first-look/screen';
import { handsScreen } from '../features/hands/screen';
import { intakeScreen } from '../features/intake/screen';
import { keyScreen } from '../features/key/screen';
import { lessonScreen } from '../features/lesson/screen';
import { logScreen } from '../features/log/screen';
import { passOnScreen } from '../features/pass-on/screen';
import { patternsScreen } from '../features/patterns/screen';
import { playersScreen } from '../features/players/screen';
import { receivedScreen } from '../features/received/screen';
import { rehearseScreen } from '../features/rehearse/screen';
import { sheetScreen } from '../features/sheet/screen';
import { shelfScreen } from '../features/shelf/screen';
import { versionsScreen } from '../features/versions/screen';

/** Every screen. */
export const SCREENS = [
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
