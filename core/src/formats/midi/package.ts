import * as midiPackage from '@tonejs/midi';

/** The package's class for MIDI files. It is CommonJS: Node puts its exports under `default`, bundlers do not. */
export const { Midi } = (midiPackage as unknown as { default?: typeof midiPackage }).default ?? midiPackage;
export type Midi = InstanceType<typeof Midi>;
