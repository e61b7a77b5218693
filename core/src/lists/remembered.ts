/**
 * A function that remembers what it answered, by a name for its arguments. No more than `most` answers are kept: then all are let go,
 * so that a file of ten thousand different chords does not fill the memory.
 */
export function remembered<A extends readonly unknown[], V>(
  most: number,
  nameOf: (...args: A) => string | number,
  make: (...args: A) => V,
): (...args: A) => V {
  const known = new Map<string | number, V>();
  return (...args) => {
    const name = nameOf(...args);
    let value = known.get(name);
    if (value === undefined) {
      value = make(...args);
      if (known.size >= most) known.clear();
      known.set(name, value);
    }
    return value;
  };
}
