import FFT from 'fft.js';

/** Magnitudes of the spectra of a sound, window after window; a window has as many samples as its power of two. */
export function* spectra(samples: Float32Array, window: number, hop: number): Generator<Float32Array> {
  const fft = new FFT(window);
  const shape = Float32Array.from({ length: window }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / window));
  const input = new Array<number>(window).fill(0);
  const output = fft.createComplexArray() as number[];
  const magnitudes = new Float32Array(window / 2);
  for (let from = 0; from + window <= samples.length; from += hop) {
    for (let i = 0; i < window; i++) input[i] = samples[from + i] * shape[i];
    fft.realTransform(output, input);
    for (let i = 0; i < window / 2; i++) magnitudes[i] = Math.hypot(output[2 * i], output[2 * i + 1]);
    yield magnitudes;
  }
}
