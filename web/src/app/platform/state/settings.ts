import { JOIN_ORDERS, STEP_ORDERS } from '@joined-hands/core/log';
import { NOTE_NAMES } from '@joined-hands/core/words';
import * as z from 'zod';

/** What is known of a microphone and the piano before it. */
const MicrophoneSchema = z.object({
  /** What the browser calls it. */
  name: z.string(),
  /** Seconds by which what is heard comes late. */
  latency: z.number().min(0).max(0.6),
  fit: z.object({
    cents: z.number().min(-60).max(60),
    keys: z.array(z.object({ midi: z.number(), partials: z.array(z.number()) })).max(12),
  }),
  /** The day on which it was set up. */
  day: z.string(),
});

/** What may be set; anything unreadable falls back to its default. */
export const SettingsSchema = z.object({
  /** True until the look round was taken or left. */
  newcomer: z.boolean().catch(true),
  /** How notes are named everywhere. */
  noteNames: z.enum(NOTE_NAMES).catch('letters'),
  /** Whether notes with two flats or sharps keep their exact name on keys and cards. */
  exactNames: z.boolean().catch(false),
  theme: z.enum(['day', 'evening']).catch('day'),
  /** Share of the song's own tempo. */
  tempoPercent: z.number().min(40).max(120).catch(75),
  countIn: z.boolean().catch(true),
  click: z.boolean().catch(false),
  /** What runs under the tune: the sung words, or the counts. */
  learnBy: z.enum(['words', 'counts']).catch('words'),
  /** Minutes for today's practice, and how its plan is laid. */
  minutes: z.number().min(5).max(180).catch(20),
  stepOrder: z.enum(STEP_ORDERS).catch('song'),
  joinOrder: z.enum(JOIN_ORDERS).catch('chain'),
  /** Whether a pass goes on in time or waits for the right keys. */
  pace: z.enum(['time', 'wait']).catch('time'),
  /** Which hand a lesson begins with, whether it is read aloud, and whether it waits until it has heard a phrase. */
  firstHand: z.enum(['right', 'left']).catch('right'),
  spoken: z.boolean().catch(true),
  lessonWaits: z.boolean().catch(false),
  otherHand: z.boolean().catch(true),
  loop: z.boolean().catch(false),
  practiceClick: z.boolean().catch(true),
  octavesForgiven: z.boolean().catch(false),
  voice: z.enum(['piano', 'electric']).catch('piano'),
  /** What leads on without the mouse: the pedal or the lowest key of a connected keyboard. */
  nextBy: z.enum(['none', 'pedal', 'lowest key']).catch('none'),
  /** How the keys on the screen stand in for a keyboard: milliseconds of delay, and loudness from 0 to 1. */
  keyDelay: z.number().min(0).max(200).catch(0),
  keyLoudness: z.number().min(0.1).max(1).catch(0.6),
  /** How the stand-in player plays: its mistakes in a hundred notes. */
  standIn: z.enum(['clean', 'learner', 'rough']).catch('learner'),
  /** Microphones that were set up. */
  microphones: z.array(MicrophoneSchema).catch([]),
  paper: z.enum(['a4', 'letter']).catch('a4'),
});

export type Settings = z.infer<typeof SettingsSchema>;
