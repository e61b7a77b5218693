// @ts-check
// The lesson that was taken along: strip, keyboard, captions and sound of a page that stands by itself.
'use strict';
(() => {
  const $ = (/** @type {string} */ id) => /** @type {HTMLElement} */ (document.getElementById(id));
  const data = JSON.parse($('lesson').textContent ?? '');
  const { takes, words, samples } = data;
  const phone = matchMedia('(max-width: 640px)');
  const SLOWEST = 0.4;
  const RELEASE = 0.6;
  let at = 0;
  let speed = 1;
  /** Where the take that plays began, by the audio clock; null in silence. */
  let began = /** @type {number | null} */ (null);
  let shown = -1;
  let frame = 0;
  /** @type {AudioContext | null} */
  let context = null;
  /** @type {Map<number, AudioBuffer>} */
  const heard = new Map();
  /** @type {AudioScheduledSourceNode[]} */
  let sounding = [];

  /** The buttons of the chapters, by the take that each begins with. @type {Map<number, HTMLButtonElement>} */
  const chapters = new Map();
  takes.forEach((/** @type {{ chapter: string }} */ take, /** @type {number} */ i) => {
    if (takes[i - 1]?.chapter === take.chapter) return;
    const button = document.createElement('button');
    button.type = 'button';
    button.textContent = take.chapter;
    button.addEventListener('click', () => go(i));
    chapters.set(i, button);
    $('chapters').append(button);
  });

  /** Draws what is to be seen. */
  function show(/** @type {number} */ index) {
    const take = takes[at];
    const shot = take.shots[index] ?? take.shots[0];
    if (index === shown) return;
    shown = index;
    $('title').textContent = take.title;
    $('caption').textContent = shot.caption;
    $('far').style.width = `${(100 * at) / Math.max(1, takes.length - 1)}%`;
    const first = Math.max(...[...chapters.keys()].filter((i) => i <= at));
    for (const [i, button] of chapters) {
      if (i !== first) button.removeAttribute('aria-current');
      else if (!button.hasAttribute('aria-current')) {
        button.setAttribute('aria-current', 'true');
        button.scrollIntoView({ block: 'nearest', inline: 'center' });
      }
    }
    const strips = phone.matches ? data.narrow : data.strips;
    const name = `${shot.part}:${shot.view}`;
    if ($('strip').dataset.name !== name) {
      $('strip').innerHTML = strips[name];
      $('strip').dataset.name = name;
    }
    for (const mark of $('strip').querySelectorAll('.on')) mark.classList.remove('on');
    if (shot.at !== null) for (const mark of $('strip').querySelectorAll(`[data-at="${shot.at}"]`)) mark.classList.add('on');
    const keys = $('keyboard');
    for (const old of keys.querySelectorAll('.dot, .dot-text')) old.remove();
    for (const key of keys.querySelectorAll('.sounding')) key.classList.remove('sounding');
    for (const { midi, hand, finger } of shot.keys) {
      const key = keys.querySelector(`[data-midi="${midi}"]`);
      if (!key) continue;
      key.classList.add('sounding');
      const number = (/** @type {string} */ of) => Number(key.getAttribute(of));
      const x = number('x') + number('width') / 2;
      const y = number('y') + number('height') * (key.classList.contains('black') ? 0.75 : 0.735);
      const add = (/** @type {string} */ kind, /** @type {Record<string, string | number>} */ values, text = '') => {
        const made = document.createElementNS('http://www.w3.org/2000/svg', kind);
        for (const [name, value] of Object.entries(values)) made.setAttribute(name, String(value));
        made.textContent = text;
        key.parentNode?.append(made);
      };
      add('circle', { class: `dot ${hand}`, cx: x, cy: y, r: 12 });
      add('text', { class: 'dot-text', x, y: y + 5.5, 'font-size': 16 }, finger);
    }
    for (const place of ['#keyboard .sounding', '#strip .on'])
      document.querySelector(place)?.scrollIntoView({ block: 'nearest', inline: 'center' });
  }

  /** The piano, once it is asked for. */
  async function ready() {
    const made = (context ??= new AudioContext());
    await made.resume();
    if (heard.size > 0) return made;
    await Promise.all(
      Object.entries(samples).map(async ([midi, sound]) => {
        const bytes = Uint8Array.from(atob(String(sound)), (c) => c.charCodeAt(0));
        heard.set(Number(midi), await made.decodeAudioData(bytes.buffer));
      }),
    );
    return made;
  }

  function silence() {
    cancelAnimationFrame(frame);
    for (const node of sounding) node.stop();
    sounding = [];
    began = null;
    $('go').textContent = words.start;
  }

  /** Hands the sounds of a take to the audio clock. */
  function sound(/** @type {AudioContext} */ on, /** @type {number} */ start) {
    for (const { time, duration, midi, loudness } of takes[at].sounds) {
      const when = start + time / speed;
      const volume = new GainNode(on, { gain: 0 });
      volume.connect(on.destination);
      const long = midi === null ? 0.03 : duration / speed;
      volume.gain.setValueAtTime(loudness * (midi === null ? 0.12 : 1), when);
      volume.gain.setTargetAtTime(0, when + long, midi === null ? 0.01 : RELEASE / 4);
      let node;
      if (midi === null) node = new OscillatorNode(on, { frequency: loudness > 0.7 ? 1600 : 1100 });
      else {
        const key = [...heard.keys()].reduce((a, b) => (Math.abs(b - midi) < Math.abs(a - midi) ? b : a));
        node = new AudioBufferSourceNode(on, { buffer: heard.get(key), playbackRate: 2 ** ((midi - key) / 12) });
      }
      node.connect(volume);
      node.start(when);
      node.stop(when + long + RELEASE);
      sounding.push(node);
    }
  }

  async function play() {
    silence();
    const on = await ready();
    began = on.currentTime + 0.15;
    $('go').textContent = words.stop;
    sound(on, began);
    const follow = () => {
      if (began === null || !context) return;
      const now = (context.currentTime - began) * speed;
      const take = takes[at];
      if (now >= take.seconds) {
        if (at + 1 < takes.length) go(at + 1);
        else silence();
        return;
      }
      show(
        Math.max(
          0,
          take.shots.findLastIndex((/** @type {{ from: number }} */ s) => s.from <= now),
        ),
      );
      frame = requestAnimationFrame(follow);
    };
    follow();
  }

  function go(/** @type {number} */ to, plays = true) {
    silence();
    at = Math.min(takes.length - 1, Math.max(0, to));
    shown = -1;
    show(0);
    if (plays) void play();
  }

  const acts = {
    go: () => (began === null ? void play() : silence()),
    again: () => go(at),
    back: () => go(at - 1),
    on: () => go(at + 1),
    slower: () => {
      speed = Math.max(SLOWEST, speed * 0.85);
      go(at);
    },
  };
  for (const [id, act] of Object.entries(acts)) $(id).addEventListener('click', act);
  document.addEventListener('keydown', (event) => {
    if (event.target instanceof HTMLButtonElement) return;
    const act = {
      ' ': acts.go,
      ArrowRight: acts.on,
      ArrowLeft: acts.back,
      ArrowDown: acts.slower,
      PageDown: acts.on,
      PageUp: acts.back,
    }[event.key];
    if (!act) return;
    event.preventDefault();
    act();
  });
  phone.addEventListener('change', () => {
    shown = -1;
    $('strip').dataset.name = '';
    if (began === null) show(0);
  });
  go(0, false);
})();
