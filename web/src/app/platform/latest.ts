/**
 * Where something may be asked again before it was answered, the latest wins: each call answers whether it is still the last one.
 * What comes back to one that was overtaken is dropped.
 *
 *     const begin = latestWins();
 *     const isLatest = begin();
 *     const found = await look();
 *     if (!isLatest()) return;
 */
export function latestWins(): () => () => boolean {
  let last = 0;
  return () => {
    const mine = ++last;
    return () => mine === last;
  };
}
