import type { PractisedDays } from '@joined-hands/core/practice';
import type { Library } from '../storage/library';
import type { Workers } from '../workers/workers';

/** The setting under which the made-up logs stand that are still to be written. */
export const DEMO_LOG = 'demo-log';

/** On which days a demo song was practised. */
export interface DemoLog extends Omit<PractisedDays, 'today'> {
  readonly song: string;
}

/** Writes the made-up logs of the demo songs, once, when practice is first looked at. */
export async function writeDemoLogs(library: Library, workers: Workers): Promise<void> {
  const logs = (await library.setting<DemoLog[]>(DEMO_LOG)) ?? [];
  if (logs.length === 0) return;
  for (const { song, ...days } of logs) {
    const stored = await library.get(song);
    const checked = await workers.checker.call('check', stored ? [stored.document] : []);
    const document = checked.ok ? checked.value[0] : null;
    if (!document) continue;
    const passes = await workers.arranger.call('practised', document, song, { ...days, today: new Date() });
    if (passes.ok) await library.keepPasses(passes.value);
  }
  await library.keepSetting(DEMO_LOG, []);
}
