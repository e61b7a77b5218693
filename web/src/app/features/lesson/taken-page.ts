import { SAMPLES_AT, sampleFile, samplesNeeded } from '../../platform/audio/samples';
import type { Take } from './reel';
import { base64, escaped, SIGNS, shown, type Stills } from './stills';

/** Where the script of the page lies. */
const SCRIPT = 'taken/lesson.js';

const STYLES = `
*{box-sizing:border-box}
body{margin:0;height:100dvh;overflow:hidden;display:grid;grid-template-rows:auto minmax(0,1fr) auto auto auto auto auto;background:var(--paper);color:var(--ink);font:17px/1.4 var(--read)}
header{display:flex;flex-wrap:wrap;align-items:baseline;gap:4px 16px;padding:12px 18px}
h1{margin:0;font:600 24px/1.2 var(--title)}
#title{font:500 22px/1.2 var(--title)}
.bar{flex:1;min-width:80px;max-width:240px;height:6px;margin-left:auto;border-radius:3px;background:var(--line);overflow:hidden}
#far{height:100%;background:var(--join)}
main{margin:0 14px;padding:8px;overflow:auto;background:var(--sheet);border:1px solid var(--line);border-radius:12px}
main svg{display:block;max-width:100%;height:auto;overflow:visible}
#caption{display:grid;align-content:center;min-height:84px;margin:6px 18px;font-size:23px;text-align:center;text-wrap:balance}
#chapters{display:flex;gap:6px;padding:0 14px 10px;overflow-x:auto}
#chapters button{flex:none;min-height:38px;padding:4px 12px;font-size:15px;color:var(--soft);background:none}
#chapters [aria-current]{color:var(--ink);font-weight:600;background:var(--sheet);border-color:var(--join)}
nav{display:flex;flex-wrap:wrap;justify-content:center;gap:8px;padding:0 14px 10px}
button{min-height:44px;padding:8px 16px;font:inherit;color:var(--ink);background:var(--sheet);border:1px solid var(--line);border-radius:8px;cursor:pointer}
#go{background:var(--ink);color:var(--paper);min-width:96px}
button:focus-visible{outline:3px solid var(--focus);outline-offset:2px}
#keyboard{padding:4px 14px;background:var(--shelf);border-top:1px solid var(--line)}
#keyboard{overflow-x:auto}
#keyboard svg{display:block;width:100%;height:auto;max-height:150px}
${SIGNS}
small{padding:8px 18px;color:var(--soft)}
@media(max-width:640px){h1{font-size:20px}#title{font-size:18px}main{margin:0 6px;padding:4px}#caption{font-size:19px;margin:4px 12px}nav{gap:6px}button{padding:6px 12px}#keyboard svg{width:1000px}small{font-size:14px}}
`;

/** A lesson as one page that opens by itself, without a network: its strips, its keyboard, its words and its sound. */
export async function takenPage(title: string, takes: readonly Take[], stills: Stills): Promise<string> {
  const words = { start: $localize`Start`, stop: $localize`Stop` };
  const [script, samples] = await Promise.all([fetched(SCRIPT).then((f) => f.text()), samplesOf(takes)]);
  const data = JSON.stringify({ takes: takes.map(rounded), strips: stills.strips, narrow: stills.narrow, words, samples });
  const again = $localize`Again`;
  const back = $localize`Back`;
  const on = $localize`Go on`;
  const slower = $localize`Slower`;
  const chapter = $localize`Chapters`;
  const caution = $localize`Stop where it hurts, rest often, and ask a teacher. Publishing an arrangement of a song that is protected may need permission.`;
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta http-equiv="Content-Security-Policy" content="default-src 'none'; script-src 'unsafe-inline'; style-src 'unsafe-inline'; font-src data:; media-src data:">
<title>${escaped(title)}</title>
<style>${stills.styles}${STYLES}</style>
</head>
<body>
<header><h1>${escaped(title)}</h1><span id="title"></span><span class="bar"><i id="far" style="display:block"></i></span></header>
<main id="strip"></main>
<p id="caption" aria-live="polite"></p>
<nav>
<button type="button" id="go"></button><button type="button" id="again">${again}</button><button type="button" id="back">${back}</button>
<button type="button" id="on">${on}</button><button type="button" id="slower">${slower}</button>
</nav>
<div id="chapters" role="group" aria-label="${chapter}"></div>
<div id="keyboard">${stills.keyboard}</div>
<small>${caution}</small>
<script type="application/json" id="lesson">${data.replaceAll('<', '\\u003c')}</script>
<script>${script.replaceAll('</script', '<\\/script')}</script>
</body>
</html>
`;
}

/** With its musical signs; thousandths of a second are enough. */
const rounded = (take: Take): Take => ({
  ...take,
  seconds: milli(take.seconds),
  shots: take.shots.map((s) => ({ ...s, caption: shown(s.caption), from: milli(s.from), until: milli(s.until) })),
  sounds: take.sounds.map((s) => ({ ...s, time: milli(s.time), duration: milli(s.duration), loudness: milli(s.loudness) })),
});
const milli = (value: number): number => Math.round(value * 1000) / 1000;

/** The recorded keys that are nearest to those that sound, by their number. */
async function samplesOf(takes: readonly Take[]): Promise<Record<number, string>> {
  const midis = takes.flatMap((t) => t.sounds.map((s) => s.midi));
  const read = samplesNeeded(midis).map(async ({ name, midi }): Promise<[number, string]> => {
    const file = await fetched(SAMPLES_AT + sampleFile(name));
    return [midi, base64(new Uint8Array(await file.arrayBuffer()))];
  });
  return Object.fromEntries(await Promise.all(read));
}

/** A file of the application. */
async function fetched(address: string): Promise<Response> {
  const file = await fetch(address);
  if (!file.ok) throw new Error(`${address} is not there.`);
  return file;
}
