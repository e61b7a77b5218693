/** How a tone is made: a sung "la", a hum, a whistle, or a struck string. */
export type Timbre = 'la' | 'hum' | 'whistle' | 'piano';

/** A tone to be sounded: seconds, a key that may lie between two, and its loudness from 0 to 1. */
export interface Tone {
  readonly at: number;
  readonly until: number;
  readonly midi: number;
  readonly loudness?: number;
}

/** Overtones by their strength, how fast a tone comes and goes, and how far it trembles, in half steps. */
const TIMBRES: Readonly<Record<Timbre, { overtones: readonly number[]; attack: number; fades: number; trembles: number }>> = {
  la: { overtones: [1, 0.8, 0.5, 0.35, 0.2, 0.12, 0.08], attack: 0.05, fades: 0, trembles: 0.35 },
  hum: { overtones: [1, 0.25, 0.08], attack: 0.08, fades: 0, trembles: 0.2 },
  whistle: { overtones: [1, 0.03], attack: 0.03, fades: 0, trembles: 0.1 },
  piano: { overtones: [1, 0.6, 0.35, 0.25, 0.15, 0.1, 0.06, 0.04], attack: 0.004, fades: 1.4, trembles: 0 },
};

/** Numbers from -1 to 1 that are the same for the same beginning. */
export function noiseFrom(start: number): () => number {
  let state = start >>> 0 || 1;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 31 - 1;
  };
}

/** Tones as samples with a little room before and after them and noise so many decibels under full loudness. */
export function soundOf(tones: readonly Tone[], timbre: Timbre, rate: number, noise = -50, start = 1): Float32Array {
  const { overtones, attack, fades, trembles } = TIMBRES[timbre];
  const end = Math.max(...tones.map((t) => t.until)) + (fades > 0 ? 1 : 0.4);
  const hiss = noiseFrom(start);
  const level = 10 ** (noise / 20);
  const samples = Float32Array.from({ length: Math.ceil(end * rate) }, () => level * hiss());
  for (const { at, until, midi, loudness = 0.5 } of tones) {
    const hertz = 440 * 2 ** ((midi - 69) / 12);
    const from = Math.round(at * rate);
    const rings = fades > 0 ? 0.08 : 0.03;
    const to = Math.min(samples.length, Math.round((until + rings) * rate));
    let phase = 0;
    for (let i = from; i < to; i++) {
      const t = (i - from) / rate;
      const left = (to - i) / rate;
      const shape = Math.min(1, t / attack, left / rings) * (fades > 0 ? Math.exp(-t * fades) : 1);
      const tremble = trembles * Math.min(1, t / 0.2) * Math.sin(2 * Math.PI * 5.4 * t);
      phase += (2 * Math.PI * hertz * 2 ** (tremble / 12)) / rate;
      let value = 0;
      for (let k = 0; k < overtones.length && hertz * (k + 1) < rate / 2; k++) value += overtones[k] * Math.sin((k + 1) * phase);
      samples[i] += 0.3 * loudness * shape * value;
    }
  }
  return samples;
}

/** Samples as a WAV file of one channel. */
export function wavFrom(samples: Float32Array, rate: number): Uint8Array {
  const file = new DataView(new ArrayBuffer(44 + 2 * samples.length));
  const text = (at: number, word: string) => [...word].forEach((letter, i) => file.setUint8(at + i, letter.charCodeAt(0)));
  text(0, 'RIFF');
  file.setUint32(4, 36 + 2 * samples.length, true);
  text(8, 'WAVEfmt ');
  file.setUint32(16, 16, true);
  file.setUint16(20, 1, true);
  file.setUint16(22, 1, true);
  file.setUint32(24, rate, true);
  file.setUint32(28, 2 * rate, true);
  file.setUint16(32, 2, true);
  file.setUint16(34, 16, true);
  text(36, 'data');
  file.setUint32(40, 2 * samples.length, true);
  samples.forEach((x, i) => file.setInt16(44 + 2 * i, Math.round(32_767 * Math.max(-1, Math.min(1, x))), true));
  return new Uint8Array(file.buffer);
}
