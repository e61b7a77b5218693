/** Text from bytes: UTF-8 unless a byte order mark, or zeros between the letters of its beginning, say UTF-16. */
export function decodeText(data: Uint8Array): string {
  const [a, b] = data;
  const wide = a === 0xfe && b === 0xff ? 'utf-16be' : a === 0xff && b === 0xfe ? 'utf-16le' : zeros(data);
  return new TextDecoder(wide ?? 'utf-8').decode(data);
}

function zeros(data: Uint8Array): 'utf-16be' | 'utf-16le' | null {
  if (data.length < 4) return null;
  if (data[0] === 0 && data[1] !== 0 && data[2] === 0 && data[3] !== 0) return 'utf-16be';
  return data[0] !== 0 && data[1] === 0 && data[2] !== 0 && data[3] === 0 ? 'utf-16le' : null;
}
