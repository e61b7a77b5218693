/** Hands a file to the browser's own download. */
export function download(name: string, content: string | Uint8Array, type: string): void {
  const url = URL.createObjectURL(new Blob([content as BlobPart], { type }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

/** Saved data as a project file, whether it can be read or not. */
export const rawProject = (saved: unknown): string =>
  `${JSON.stringify({ kind: 'joined-hands', ...(saved as object) }, null, 2)}\n`;

/** A title as a file name: "Lamps Across the Sound" to "lamps-across-the-sound". */
export function fileName(title: string): string {
  const plain = title
    .normalize('NFKD')
    .replace(/[^\p{Letter}\p{Number}]+/gu, '-')
    .replace(/^-+|-+$/g, '')
    .toLowerCase();
  return plain || 'song';
}
