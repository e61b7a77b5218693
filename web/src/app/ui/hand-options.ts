import { HAND_PROFILES, KEYBOARD_SIZES, type HandProfile, type Hands } from '@joined-hands/core/song';
import { PROFILE_LABELS } from '@joined-hands/core/words';
import type { Option } from './dropdown';

/** What stands among the profiles for spans that were measured. */
export const MEASURED = 'measured' as const;

export const isMeasured = ({ left, right }: Hands): boolean => left !== null || right !== null;

/** Hands to choose from; measured ones stand among them where there are any. */
export const handOptions = (measured: boolean): Option<HandProfile | typeof MEASURED>[] => [
  ...(measured ? [{ id: MEASURED, text: $localize`measured hand` } as const] : []),
  ...HAND_PROFILES.map((id) => ({ id, text: PROFILE_LABELS[id].hand })),
];

export const KEYBOARD_OPTIONS = KEYBOARD_SIZES.map((id) => ({ id, text: $localize`${id} keys` }));
