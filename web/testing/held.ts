/** Something that is done later: what asks for it waits until it is let go. */
export function heldBack<Of extends unknown[], Answer>(act: (...of: Of) => Promise<Answer>) {
  let letGo = (): void => undefined;
  const gate = new Promise<void>((resolve) => (letGo = resolve));
  return { held: (...of: Of): Promise<Answer> => gate.then(() => act(...of)), letGo };
}
