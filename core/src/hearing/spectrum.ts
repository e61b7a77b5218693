import FFT from 'fft.js';

/** The shape of a window of so many samples, after Hann. */
const shapeOf = (length: number): Float32Array =>
  Float32Array.from({ length }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / length));

/** Takes magnitudes of spectra of so many samples, a power of two; a shorter stretch of sound is taken through a window of its own length. */
export function spectrumTaker(size: number): (samples: Float32Array) => Float32Array {
  const fft = new FFT(size);
  const input = new Array<number>(size).fill(0);
  const output = fft.createComplexArray() as number[];
  // Most stretches fill the whole window.
  const whole = shapeOf(size);
  return (samples) => {
    const n = samples.length;
    const shape = n === size ? whole : shapeOf(n);
    input.fill(0, n);
    for (let i = 0; i < n; i++) input[i] = samples[i] * shape[i];
    fft.realTransform(output, input);
    const magnitudes = new Float32Array(size / 2);
    for (let i = 0; i < magnitudes.length; i++) magnitudes[i] = Math.sqrt(output[2 * i] ** 2 + output[2 * i + 1] ** 2);
    return magnitudes;
  };
}

/** Magnitudes of the spectra of a sound, window after window; a window has as many samples as its power of two. */
export function* spectra(samples: Float32Array, window: number, hop: number): Generator<Float32Array> {
  const take = spectrumTaker(window);
  for (let from = 0; from + window <= samples.length; from += hop) yield take(samples.subarray(from, from + window));
}

/** Where bands that widen upwards begin in a spectrum, and where the last ends, as numbers of its bins. */
export function bandEdges(bands: number, lowest: number, highest: number, window: number, rate: number): number[] {
  const binOf = (hertz: number) => Math.max(1, Math.round((hertz * window) / rate));
  return Array.from({ length: bands + 1 }, (_, i) => binOf(lowest * (highest / lowest) ** (i / bands)));
}
