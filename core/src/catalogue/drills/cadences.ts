export const CADENCES = ['ii–V–I', 'IV–V–I', 'I–vi–ii–V', 'I–IV–iv–I'] as const;

export type Cadence = (typeof CADENCES)[number];
