import { writeParcel } from '@joined-hands/core/passing';
import jsQR from 'jsqr';
import codes from 'qrcode';
import { describe, expect, it } from 'vitest';
import { demo, DEMOS } from '../../../../../core/testing/songs';

/** What a code says to whoever photographs it: its dark squares, so many dots wide, on white. */
function photographed(text: string, scale = 3, margin = 4): string | undefined {
  const { modules } = codes.create(text, { errorCorrectionLevel: 'L' });
  const width = (modules.size + 2 * margin) * scale;
  const dots = new Uint8ClampedArray(4 * width * width).fill(255);
  for (let y = 0; y < width; y++)
    for (let x = 0; x < width; x++) {
      const [row, column] = [Math.floor(y / scale) - margin, Math.floor(x / scale) - margin];
      const inside = row >= 0 && column >= 0 && row < modules.size && column < modules.size;
      if (inside && modules.get(row, column)) dots.fill(0, 4 * (y * width + x), 4 * (y * width + x) + 3);
    }
  return jsQR(dots, width, width)?.data;
}

describe('the code of a song', () => {
  it.each(DEMOS)('is read back as the link it was made of: %s', (name) => {
    const task = { note: 'Slowly, and count aloud.', items: [{ kind: 'right' as const, from: 1, to: 2, tempo: 66 }] };
    for (const asked of [null, task]) {
      const link = `http://127.0.0.1:4000/received#${writeParcel({ kind: 'song', document: demo(name), task: asked })}`;
      expect(photographed(link)).toBe(link);
    }
  });
});
