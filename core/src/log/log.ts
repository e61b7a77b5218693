import * as z from 'zod';
import '../zod.js';
import { grouped } from '../lists/grouped.js';
import { dayAfter, type Day } from './days.js';
import { STEP_KINDS, type PracticeStep } from './step.js';

const count = z.number().int().min(0).max(100_000);

/** What a pass was of: a step of a song, a warm-up or a drill. */
export const PASS_KINDS = [...STEP_KINDS, 'warm-up', 'drill'] as const;

/** One pass as it is kept. */
export const PassSchema = z.object({
  id: z.string().min(1).max(80),
  /** The song it belongs to as the shelf knows it; null for drills of no song. */
  song: z.string().max(80).nullable(),
  title: z.string().max(200),
  /** Milliseconds since 1970, and the calendar day where the pianist was. */
  at: z.number().int().min(0),
  day: z.string().regex(/^\d{4}-\d{2}-\d{2}$/),
  step: z.string().min(1).max(200),
  kind: z.enum(PASS_KINDS),
  /** "3" or "1–4"; empty for a drill. */
  parts: z.string().max(20),
  hands: z.enum(['right', 'left', 'both']),
  /** Quarter notes a minute; 0 where there was no tempo. */
  tempo: z.number().min(0).max(400),
  goal: z.number().min(0).max(400),
  /** Where the piano listened; null where the pianist judged alone. */
  figures: z
    .object({
      notes: count,
      right: count,
      wrong: count,
      missed: count,
      extra: count,
      early: count,
      late: count,
      accuracy: z.number().min(0).max(100),
    })
    .nullable(),
  clean: z.boolean(),
  seconds: z.number().min(0).max(86_400),
  note: z.string().max(500),
});

export type Pass = z.infer<typeof PassSchema>;

/** Fields of a pass with what they are, so that a log of years is looked through in no time: it was checked when it was written. */
const KINDS: Readonly<Record<keyof Pass, readonly string[]>> = {
  id: ['string'],
  song: ['string', 'null'],
  title: ['string'],
  at: ['number'],
  day: ['string'],
  step: ['string'],
  kind: ['string'],
  parts: ['string'],
  hands: ['string'],
  tempo: ['number'],
  goal: ['number'],
  figures: ['object', 'null'],
  clean: ['boolean'],
  seconds: ['number'],
  note: ['string'],
};
const FIELDS = Object.entries(KINDS);

/** True for what was saved as a pass and still looks like one. */
export function isSavedPass(data: unknown): data is Pass {
  if (typeof data !== 'object' || data === null) return false;
  const saved = data as Record<string, unknown>;
  return FIELDS.every(([field, kinds]) => kinds.includes(saved[field] === null ? 'null' : typeof saved[field]));
}

/** A pass as it was played, before it is kept. */
export type PassDraft = Omit<Pass, 'id' | 'at' | 'day' | 'note'>;

/** True for what belongs to no part of a song. */
export const isDrill = (kind: Pass['kind']): kind is 'drill' | 'warm-up' => kind === 'drill' || kind === 'warm-up';

/** The step under which a drill is kept, and back: the drill's name, or null for a step of a song. */
export const drillStep = (drill: string): string => `drill:${drill}`;
export const drillOfStep = (step: string): string | null => /^drill:(.*)$/s.exec(step)?.[1] ?? null;

/** What every pass of a step says of it; parts as the log names them, "3" or "1–4". */
export function ofStep({ id, kind, hands, goal, parts }: PracticeStep): Pick<Pass, 'step' | 'kind' | 'hands' | 'goal' | 'parts'> {
  const { from, to } = parts;
  return { step: id, kind, hands, goal, parts: from === to ? `${from}` : `${from}–${to}` };
}

/** Minutes of practice on each of some days, the first day first. */
export function minutesPerDay(passes: readonly Pass[], last: Day, days: number): { day: Day; minutes: number }[] {
  const seconds = new Map<Day, number>();
  for (const p of passes) seconds.set(p.day, (seconds.get(p.day) ?? 0) + p.seconds);
  return Array.from({ length: days }, (_, i) => {
    const day = dayAfter(last, i - days + 1);
    return { day, minutes: Math.round((seconds.get(day) ?? 0) / 6) / 10 };
  });
}

/** Days in a row with practice, up to today or, where today is still open, to yesterday. */
export function daysInARow(passes: readonly Pass[], today: Day): number {
  const days = new Set(passes.map((p) => p.day));
  let day = days.has(today) ? today : dayAfter(today, -1);
  let row = 0;
  for (; days.has(day); day = dayAfter(day, -1)) row++;
  return row;
}

/** The fastest tempo that was clean, by the parts it was played on, against the goal. */
export function tempoReached(passes: readonly Pass[]): { parts: string; tempo: number; goal: number }[] {
  const reached = new Map<string, { parts: string; tempo: number; goal: number }>();
  for (const { parts, tempo, goal, clean, kind } of passes) {
    if (!parts || isDrill(kind)) continue;
    const before = reached.get(parts) ?? { parts, tempo: 0, goal: 0 };
    reached.set(parts, { parts, tempo: Math.max(before.tempo, clean ? tempo : 0), goal: Math.max(before.goal, goal) });
  }
  return [...reached.values()].sort(byParts);
}

/** By the first part, single parts before chains. */
const byParts = (a: { readonly parts: string }, b: { readonly parts: string }): number =>
  Number.parseInt(a.parts, 10) - Number.parseInt(b.parts, 10) || a.parts.length - b.parts.length;

/** Passes that say how a part goes now: the last ones. */
const RECENT = 5;

/** Mean accuracy of the last passes that were listened to, by parts and hands, the first part first. */
export function accuracyMap(passes: readonly Pass[]): { parts: string; hands: Pass['hands']; accuracy: number }[] {
  const heard = passes.filter((p) => p.parts && p.figures);
  const cells = [...grouped(heard, (p) => `${p.parts}|${p.hands}`).values()].map((all) => {
    const last = all.slice(-RECENT);
    const { parts, hands } = last[0];
    return { parts, hands, accuracy: Math.round(last.reduce((sum, p) => sum + (p.figures?.accuracy ?? 0), 0) / last.length) };
  });
  return cells.sort(byParts);
}

const COLUMNS = ['date', 'time', 'song', 'step', 'parts', 'hands', 'tempo', 'goal', 'notes', 'right', 'wrong', 'missed'] as const;
const MORE_COLUMNS = ['extra', 'early', 'late', 'accuracy', 'clean', 'minutes', 'note'] as const;

/** The log as comma-separated text with a heading line, one pass a line; times are UTC. */
export function logCsv(passes: readonly Pass[]): string {
  const lines = passes.map((p) => {
    const f = p.figures;
    const figures = f
      ? [f.notes, f.right, f.wrong, f.missed, f.extra, f.early, f.late, f.accuracy]
      : new Array<string>(8).fill('');
    const time = new Date(p.at).toISOString().slice(11, 16);
    const ends = [p.clean ? 'yes' : 'no', (p.seconds / 60).toFixed(1), p.note];
    return [p.day, time, p.title, p.kind, p.parts, p.hands, p.tempo, p.goal, ...figures, ...ends].map(quoted).join(',');
  });
  return `${[[...COLUMNS, ...MORE_COLUMNS].join(','), ...lines].join('\r\n')}\r\n`;
}

function quoted(value: string | number): string {
  const text = `${value}`;
  // What a spreadsheet would run is kept as words.
  const plain = /^[=+@\t]|^-(?![\d.]+$)/.test(text) ? `'${text}` : text;
  return /[",\r\n]/.test(plain) ? `"${plain.replaceAll('"', '""')}"` : plain;
}

const LogFile = z.object({
  format: z.literal('joined-hands-log'),
  version: z.literal(1),
  passes: z.array(PassSchema).max(200_000),
});

export function writeLog(passes: readonly Pass[]): string {
  return `${JSON.stringify({ format: 'joined-hands-log', version: 1, passes }, null, 2)}\n`;
}

export type ReadLog = { readonly ok: true; readonly passes: readonly Pass[] } | { readonly ok: false; readonly fact: LogFault };

/** Why a file is no practice log; the entry is counted from 1, null for the heading. */
export type LogFault =
  { readonly code: 'log.not-json' } | { readonly code: 'log.damaged'; readonly entry: number | null; readonly field: string };

/** Reads a log as {@link writeLog} writes it; anything else is refused with the place. */
export function readLog(text: string): ReadLog {
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch {
    return { ok: false, fact: { code: 'log.not-json' } };
  }
  const read = LogFile.safeParse(data);
  if (read.success) return { ok: true, passes: read.data.passes };
  const [problem] = read.error.issues;
  const entry = problem.path.length > 1 ? Number(problem.path[1]) + 1 : null;
  return { ok: false, fact: { code: 'log.damaged', entry, field: problem.path.slice(2).join(' ') } };
}
