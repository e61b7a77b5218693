export * from './time/ticks.js';
export * from './time/meter.js';
export * from './time/counts.js';
export * from './time/bars.js';
export * from './time/tempo.js';
export * from './pitch/pitch.js';
export * from './harmony/key.js';
export * from './harmony/symbol.js';
export * from './harmony/naming.js';
export { HARMONIC_RHYTHMS, VOCABULARIES, type HarmonicRhythm, type Vocabulary } from './harmony/vocabulary.js';
export { suggestChords, type SuggestedChord, type SuggestionTask } from './harmony/suggest.js';
export { type ChordChoice } from './harmony/choices.js';
export { chordsHolding, type HoldingChord } from './harmony/holding.js';
export { otherNames } from './harmony/same-notes.js';
export {
  approachChords,
  chordChanges,
  forLeadingTriad,
  turnBacks,
  type ApproachChord,
  type ChordChange,
} from './harmony/changes.js';
export * from './song/limits.js';
export { projectText } from './song/project-text.js';
export { oneLine } from './song/text.js';
export * from './song/song.js';
export * from './song/decisions.js';
export * from './song/edits.js';
export * from './song/dressing.js';
export * from './song/versions.js';
export { divide, PART_COSTS, PART_SIZES, type Stretch } from './divide/divide.js';
export { BOUNDARY_TERMS, findBoundaries, type Boundary } from './divide/boundaries.js';
export { repeatWords, type RepeatOf } from './divide/repeats.js';
export { type Section } from './divide/sections.js';
export { VOICING_COSTS, motionBetween } from './left-hand/costs.js';
export { chordFingers } from './left-hand/fingers.js';
export { voicingsFor, type Form, type Voicing } from './left-hand/candidates.js';
export { type VoiceMove } from './left-hand/reasons.js';
export { SCHOOL_RULES, type SchoolRules } from './left-hand/schools.js';
export { gripsOf, shapeOf, shapesOf, type Shape } from './left-hand/shapes.js';
export { type Spread } from './left-hand/spread.js';
export { type Strike } from './left-hand/strikes.js';
export { type VoicingWishes } from './left-hand/problem.js';
export { voiceLeftHand, type Alternative, type LeftHand, type VoicedChord } from './left-hand/voice.js';
export { PAIR_SPANS } from './right-hand/spans.js';
export { FINGER_COSTS } from './right-hand/finger-costs.js';
export { type Grip, type Fingered } from './right-hand/fingering.js';
export { fingerLine } from './right-hand/line.js';
export { keyWords, moveWords, startWords, type HandPlace } from './right-hand/positions.js';
export { STAY_FIGURE_WORDS } from './right-hand/stay.js';
export { type UnderNote } from './right-hand/under-melody.js';
export { conflictSentence, findConflicts, notesOver, type Conflict } from './join/conflicts.js';
export { countNotes, countSentence, sungWords, type CountedNote } from './join/counting.js';
export { type Jump } from './join/jumps.js';
export { togetherSentence, type Together } from './join/together.js';
export { TextureSchema, barsOf, type Texture } from './song/texture-data.js';
export { FREE, HELD, PLAIN, TEXTURES, isPlain, patternFor, textureNamed } from './fills/texture.js';
export { soundsUntil, type PedalPoint } from './fills/pedal.js';
export { MOST_HARMONY } from './fills/harmony.js';
export { nearestTo, proposeTextures } from './fills/propose.js';
export { columnKeys, GRID_ROWS, regrid, rowsOf, toggleRow, withColumn, type GridRow } from './fills/grid.js';
export { readTextures, writeTextures, type ReadTextures } from './fills/exchange.js';
export { FILL_WORDS, type Fill, type FillNote } from './fills/offers.js';
export { LOUDNESS, type DynamicMark } from './fills/dynamics.js';
export { chordsForVoice, rightFingers, sungVoicings, SING_ALONG_COSTS, type SungChord } from './fills/sing-along.js';
export { isChordNote, type Dressed, type DressedNote } from './fills/dress.js';
export { fillPlaces, type FillPlace } from './fills/places.js';
export { arrange } from './arrange/arrange.js';
export { arrangeNearby } from './arrange/nearby.js';
export { type Arrangement, type Part, type PartChord, type PartNote, type ScoreNote } from './arrange/arrangement.js';
export { type Difficulty, type Load } from './difficulty/difficulty.js';
export { DIFFICULTY_TERMS } from './difficulty/terms.js';
export { comesAgain, firstAndSecondEndings, louderEachTime, timeOf } from './arrange/across-repeats.js';
export { compareArrangements, type BarPair, type ComparedBar, type ComparedFigures, type Comparison } from './arrange/compare.js';
export { proposedPlan, withProposedPlan } from './arrange/plan.js';
export { compareKeys, type KeyFacts } from './arrange/compare-keys.js';
export { songDifficulty, versions, whatHelps, type Ease, type Version } from './arrange/ease.js';
export { fixAllCollisions } from './arrange/fix-all.js';
export { LEVEL_WORDS } from './arrange/levels.js';
export { LAYER_WORDS, plays, upToLayer } from './arrange/layers.js';
export { type Room } from './arrange/rooms.js';
export { linkedEdit, linkedSentence, type LinkedEdit } from './arrange/linked.js';
export { type Finding } from './arrange/finding.js';
export { applyFix, type Fix, type FixAction } from './arrange/fixes.js';
export { suggestionFor, USUAL_SUGGESTION } from './arrange/harmonise.js';
export { schoolPrices, type SchoolPrice, type Scope } from './arrange/prices.js';
export { usualSchool } from './arrange/wishes.js';
export { report } from './arrange/report.js';
export { chartText, letterChart, partTitle, type ChartBar, type ChartColumn, type ChartPart } from './sheet/chart.js';
export {
  chordShapes,
  lessonOf,
  lessonText,
  joinsOf,
  worksheet,
  type ChordShape,
  type Lesson,
  type LessonPart,
  type WorksheetPart,
} from './sheet/lesson.js';
export { writtenScore } from './sheet/written.js';
export { cardOf, checkDocument, type Checked, type SongCard } from './sheet/card.js';
export { firstLook, warmUp, type FirstLook, type WarmUp } from './sheet/first-look.js';
export { grade, type ExpectedNote, type Grade, type GradedNote, type GradeOptions, type HeardNote } from './practice/grade.js';
export { figuresOf, isClean, passWords, type PassFigures } from './practice/words.js';
export { playStandIn, type PlayingManner } from './practice/stand-in-player.js';
export { notesOf, plainScore, type PlacedNote, type PlayedNote, type Stint } from './practice/score.js';
export {
  JOIN_ORDERS,
  STEP_ORDERS,
  stepsOf,
  type JoinOrder,
  type Step,
  type StepKind,
  type StepOrder,
  type StepWishes,
} from './practice/steps.js';
export { LADDER, ladderOf, rungsOf, type LadderPlace } from './practice/ladder.js';
export { dayAfter, dayOf, daysBetween, type Day } from './practice/days.js';
export { grouped } from './lists/grouped.js';
export { dueAhead, isDue, REVIEW_GAPS, reviewOf, type Review } from './practice/review.js';
export { practised, type PractisedDays } from './practice/practised.js';
export * from './practice/log.js';
export { stepStates, todayFor, type StepState, type TodayItem } from './practice/today.js';
export {
  isOver,
  pressWhileWaiting,
  releaseWhileWaiting,
  waitPlaces,
  WAITING,
  type Waiting,
  type WaitPlace,
} from './practice/listen.js';
export * from './practice/drills.js';
export { REST, withoutRest } from './practice/care.js';
