import { z } from 'zod';

/** What may be set; anything unreadable falls back to its default. */
export const SettingsSchema = z.object({
  theme: z.enum(['day', 'evening']).catch('day'),
  /** Share of the song's own tempo. */
  tempoPercent: z.number().min(40).max(120).catch(75),
  countIn: z.boolean().catch(true),
  click: z.boolean().catch(false),
  /** What runs under the tune: the sung words, or the counts. */
  learnBy: z.enum(['words', 'counts']).catch('words'),
  paper: z.enum(['a4', 'letter']).catch('a4'),
});

export type Settings = z.infer<typeof SettingsSchema>;
