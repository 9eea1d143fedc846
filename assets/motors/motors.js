// Sheet 15: hold to spin, then say which motor and which way. Letting go, losing focus or ten seconds stop it.
import { at, post, say } from '../shell/http.js';
import { refresh } from '../shell/live.js';

const BEAT_MS = 220;

export function startMotors() {
  if (document.body.dataset.sheet !== '15') return;
  // The drawn period follows what is staged; the server draws it.
  document.addEventListener('staged', () => location.reload());
  spinCheck();
  rise();
  feedback();
  teaching();
}

// A button that acts while it is held: act(ms since it began) at each beat; it stops by release, lost focus, ten seconds, or act() saying 'done'.
function holding(button, act, stopped) {
  const problem = document.getElementById('spin-problem');
  let timer = null;
  let busy = false;
  let began = 0;
  const stop = (done = false) => {
    if (timer === null) return;
    clearInterval(timer);
    timer = null;
    delete document.body.dataset.spinning;
    button.classList.remove('held');
    stopped(done === true);
  };
  const beat = async () => {
    if (busy) return;
    if (Date.now() - began > 10_000) { stop(); return; }
    busy = true;
    try { if ((await act(Date.now() - began)) === 'done') stop(true); } catch (error) { stop(); problem.textContent = error.message; problem.hidden = false; } finally { busy = false; }
  };
  const start = () => {
    if (timer !== null || button.disabled) return;
    problem.hidden = true;
    began = Date.now();
    document.body.dataset.spinning = '1';
    button.classList.add('held');
    timer = setInterval(beat, BEAT_MS);
    beat();
  };
  button.addEventListener('pointerdown', (e) => { button.setPointerCapture(e.pointerId); start(); });
  for (const end of ['pointerup', 'pointercancel', 'keyup', 'blur']) button.addEventListener(end, () => stop());
  button.addEventListener('keydown', (e) => { if (e.key === ' ' || e.key === 'Enter') { e.preventDefault(); start(); } });
  window.addEventListener('blur', () => stop());
  document.addEventListener('visibilitychange', () => stop());
  document.addEventListener('keydown', (e) => { if (e.key === ' ' && e.target === document.body) { e.preventDefault(); button.focus(); start(); } });
}

function spinCheck() {
  const button = document.getElementById('spin');
  const drawing = document.getElementById('motors-drawing');
  if (!drawing || !button) return;
  const pad = Number(button.dataset.pad);
  const fail = (error) => { const problem = document.getElementById('spin-problem'); problem.textContent = error.message; problem.hidden = false; };
  holding(button, async () => { await post(button.dataset.url, { pad }); refresh(); }, () => post(button.dataset.url, { pad, stop: '1' }).then(refresh, fail));
  const which = document.getElementById('which');
  let place = null;
  const pick = (g) => {
    if (button.disabled) return;
    place = g.dataset.place;
    for (const o of drawing.querySelectorAll('.pick')) o.classList.toggle('chosen', o === g);
    which.hidden = false;
    which.querySelector('button').focus();
  };
  for (const g of drawing.querySelectorAll('.pick')) {
    g.addEventListener('click', () => pick(g));
    g.addEventListener('keydown', (e) => { if (e.key === 'Enter' || e.key === ' ') { e.preventDefault(); pick(g); } });
  }
  which.addEventListener('click', async (e) => {
    const way = e.target.dataset.way;
    if (!way) return;
    try { await post(`${at()}/motors/answer`, { pad, place, direction: Number(way) }); location.reload(); } catch (error) { fail(error); }
  });
}

// All outputs rise by steps of about a second; the last beat of each reads every rpm.
function rise() {
  const button = document.getElementById('rise');
  if (!button) return;
  const bar = document.getElementById('rise-progress');
  const steps = Number(button.dataset.steps);
  const stepMs = 1050;
  let step = 0;
  holding(button, async (ms) => {
    if (ms < BEAT_MS) step = 0;
    const read = ms >= (step + 1) * stepMs - BEAT_MS;
    await post(button.dataset.url, { step, read: read ? '1' : '', swapped: sessionStorage.getItem('swapped') ?? '' });
    refresh();
    if (read) { step += 1; bar.value = step; }
    return step >= steps ? 'done' : '';
  }, async (done) => {
    await post(button.dataset.url, { stop: '1' }).catch(() => {});
    if (done) { sessionStorage.removeItem('swapped'); location.reload(); } else bar.value = 0;
  });
  document.getElementById('swap')?.addEventListener('click', () => {
    const partner = document.getElementById('swap-with');
    sessionStorage.setItem('swapped', `${partner.dataset.weak},${partner.value}`);
    say('Noted. Raise all outputs again: what struggles now tells which it is.');
  });
}

function feedback() {
  const button = document.getElementById('feedback');
  if (!button) return;
  const bar = document.getElementById('rise-progress');
  const pads = button.dataset.pads.split(',').map(Number);
  let k = 0;
  let since = 0;
  holding(button, async (ms) => {
    if (ms < BEAT_MS) { k = 0; since = 0; }
    const read = ms - since >= 700;
    await post(button.dataset.url, { pad: pads[k], first: k === 0 ? '1' : '', read: read ? '1' : '' });
    refresh();
    if (read) { k += 1; since = ms; bar.value = k; }
    return k >= pads.length ? 'done' : '';
  }, async (done) => {
    await post(button.dataset.url, { stop: '1' }).catch(() => {});
    if (done) location.reload(); else bar.value = 0;
  });
}

// The tones of the ESCs, as they are heard; sounded where that is wanted.
const TUNES = { two_rising: [520, 780], three_falling: [780, 620, 490], power_on: [600] };

function teaching() {
  const box = document.querySelector('[data-tones]');
  if (!box) return;
  const sound = document.getElementById('sound');
  sound.checked = localStorage.getItem('sound') === '1';
  sound.addEventListener('change', () => localStorage.setItem('sound', sound.checked ? '1' : ''));
  document.addEventListener('click', async (e) => {
    const button = e.target.closest('[data-teach]');
    if (!button) return;
    try {
      const { tones } = await post(button.dataset.url, { step: button.dataset.teach });
      if (sound.checked && tones.length) play(tones[tones.length - 1]);
      location.reload();
    } catch (error) { const problem = document.getElementById('spin-problem'); problem.textContent = error.message; problem.hidden = false; }
  });
  document.addEventListener('live', ({ detail: { now } }) => { if (now.bench.tones.join('|') !== box.dataset.tones) { if (sound.checked && now.bench.tones.length) play(now.bench.tones.at(-1)); location.reload(); } });
}

function play(tone) {
  const audio = new AudioContext();
  (TUNES[tone] ?? []).forEach((hz, i) => {
    const beep = audio.createOscillator();
    beep.frequency.value = hz;
    beep.connect(audio.destination);
    beep.start(audio.currentTime + 0.16 * i);
    beep.stop(audio.currentTime + 0.16 * i + 0.12);
  });
}
