import type { AdaptationFact } from '../arrange/adapted.js';
import type { FindingFact } from '../arrange/finding.js';
import type { FixFact } from '../arrange/fixes.js';
import type { EndingObstacle } from '../arrange/endings.js';
import type { DifficultyFact } from '../difficulty/difficulty.js';
import type { BoundaryFact } from '../divide/boundaries.js';
import type { BendFact } from '../fills/bend.js';
import type { TexturesFault } from '../fills/exchange.js';
import type { FingerFact } from '../fingers/explain.js';
import type { FillFact } from '../catalogue/fills/fill.js';
import type { OpenFault } from '../formats/open.js';
import type { ArchiveFault } from '../formats/project/archive.js';
import type { Notice, QuestionEntry, RefusalCause } from '../formats/result.js';
import type { ApproachFact } from '../harmony/changes.js';
import type { ChordFact } from '../harmony/choices.js';
import type { KeyReadingFact } from '../harmony/find-key.js';
import type { VoicingFact } from '../left-hand/reasons.js';
import type { DrillFact, TaskFact } from '../catalogue/drills/drill.js';
import type { ChapterFact, LessonFact } from '../lesson/scene.js';
import type { LogFault } from '../log/log.js';
import type { TodayFact } from '../practice/today.js';
import type { VerdictFact } from '../practice/verdict.js';
import type { EditFact } from '../song/edit.js';
import type { ParcelFault } from '../passing/parcel.js';
import type { ScreenFact } from './screen-fact.js';
import type { MoveFact, StartFact } from '../right-hand/positions.js';

/** Everything that can be said, as data. A catalogue has words for each code. */
export type Fact =
  | AdaptationFact
  | ApproachFact
  | ArchiveFault
  | BendFact
  | BoundaryFact
  | ChapterFact
  | ChordFact
  | DifficultyFact
  | DrillFact
  | EditFact
  | EndingObstacle
  | FillFact
  | FingerFact
  | FindingFact
  | FixFact
  | KeyReadingFact
  | LessonFact
  | LogFault
  | MoveFact
  | Notice
  | OpenFault
  | ParcelFault
  | QuestionEntry['fact']
  | RefusalCause
  | ScreenFact
  | StartFact
  | TaskFact
  | TexturesFault
  | TodayFact
  | VerdictFact
  | VoicingFact;

export type Code = Fact['code'];

/** The facts of one code. */
export type FactOf<C extends Code> = Extract<Fact, { readonly code: C }>;

/** Words for some codes: a function for each, so that none can be forgotten. */
export type Sayings<C extends Code, Speech> = {
  readonly [K in C]: (fact: FactOf<K>, say: Speech) => string;
};

/** The codes that begin with a prefix: "finding" for "finding.reach". */
export type CodesOf<Prefix extends string> = Extract<Code, `${Prefix}.${string}`>;
