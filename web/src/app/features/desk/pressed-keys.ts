/** Most keys that a hand strikes at once: it has five fingers. */
const MOST = 5;

/** Keys with one more pressed, or without it where it was among them; where no finger is left the first gives way. */
export const withKey = (keys: readonly number[], midi: number): readonly number[] =>
  keys.includes(midi) ? keys.filter((k) => k !== midi) : [...keys, midi].slice(-MOST);
