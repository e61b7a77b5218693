// The readers against many more damaged files than the tests have time for: node bench/fuzz.mjs [cases].
import { run } from '../scripts/install.mjs';

const cases = Number(process.argv[2] ?? 60_000);
run('npx', ['vitest', 'run', 'core/src/formats/hostile.long.spec.ts', '--testTimeout', '3600000'], {
  env: { ...process.env, FUZZ_RUNS: String(cases) },
});
