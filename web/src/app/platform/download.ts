import { projectText } from '@joined-hands/core/song';

/** Hands a file to the browser's own download. */
export function download(name: string, content: string | Uint8Array, type: string): void {
  const url = URL.createObjectURL(new Blob([content as BlobPart], { type }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

/** Hands a song to the browser's own download as it is saved, whether it can be read or not: no worker is waited for. */
export function downloadProject(title: string, saved: unknown): void {
  download(`${fileName(title)}.json`, projectText(saved), 'application/json');
}

/** A title as a file name: "Lamps Across the Sound" to "lamps-across-the-sound". */
export function fileName(title: string): string {
  const plain = title
    .normalize('NFKD')
    .replace(/[^\p{Letter}\p{Number}]+/gu, '-')
    .replace(/^-+|-+$/g, '')
    .toLowerCase();
  return plain || 'song';
}
