/**
 * Text from bytes: UTF-16 where a byte order mark or zeros between the first letters say so, UTF-8 where it is that, else the encoding
 * that the text declares, else that of Western Europe: every byte is a letter there, and none is lost.
 */
export function decodeText(data: Uint8Array): string {
  const [a, b] = data;
  const wide = a === 0xfe && b === 0xff ? 'utf-16be' : a === 0xff && b === 0xfe ? 'utf-16le' : zeros(data);
  if (wide) return new TextDecoder(wide).decode(data);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(data);
  } catch {
    return declared(data).decode(data);
  }
}

function zeros(data: Uint8Array): 'utf-16be' | 'utf-16le' | null {
  if (data.length < 4) return null;
  if (data[0] === 0 && data[1] !== 0 && data[2] === 0 && data[3] !== 0) return 'utf-16be';
  return data[0] !== 0 && data[1] === 0 && data[2] !== 0 && data[3] === 0 ? 'utf-16le' : null;
}

/** A decoder for what XML ("encoding=…") or ABC ("%%abc-charset …") says of itself, where that is no Unicode and known here. */
function declared(data: Uint8Array): TextDecoder {
  const head = String.fromCharCode(...data.subarray(0, 400));
  const label = /encoding\s*=\s*["']([\w.-]{1,40})["']|^%%abc-charset\s+([\w.-]{1,40})/m.exec(head);
  const name = label?.[1] ?? label?.[2] ?? '';
  try {
    return new TextDecoder(/^utf/i.test(name) || !name ? 'windows-1252' : name);
  } catch {
    return new TextDecoder('windows-1252');
  }
}
