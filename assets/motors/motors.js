// Sheet 15: hold to spin, then say which motor and which way. Letting go, losing focus or ten seconds stop it.
import { at, post } from '../shell/http.js';
import { refresh } from '../shell/live.js';

export function startMotors() {
  const button = document.getElementById('spin');
  const drawing = document.getElementById('motors-drawing');
  if (!drawing) return;
  const problem = document.getElementById('spin-problem');
  const fail = (error) => { problem.textContent = error.message; problem.hidden = false; };
  let timer = null;
  const stop = () => {
    if (timer === null) return;
    clearInterval(timer);
    timer = null;
    delete drawing.dataset.spinning;
    button.classList.remove('held');
    post(button.dataset.url, { pad: Number(button.dataset.pad), stop: '1' }).then(refresh, fail);
  };
  const start = () => {
    if (timer !== null || button.disabled) return;
    problem.hidden = true;
    const began = Date.now();
    const hold = async () => {
      if (Date.now() - began > 10_000) { stop(); return; }
      try { await post(button.dataset.url, { pad: Number(button.dataset.pad) }); refresh(); } catch (error) { stop(); fail(error); }
    };
    drawing.dataset.spinning = '1';
    button.classList.add('held');
    timer = setInterval(hold, 220);
    hold();
  };
  if (button) {
    button.addEventListener('pointerdown', (e) => { button.setPointerCapture(e.pointerId); start(); });
    button.addEventListener('pointerup', stop);
    button.addEventListener('pointercancel', stop);
    button.addEventListener('keydown', (e) => { if (e.key === ' ' || e.key === 'Enter') { e.preventDefault(); start(); } });
    button.addEventListener('keyup', stop);
    button.addEventListener('blur', stop);
    window.addEventListener('blur', stop);
    document.addEventListener('visibilitychange', stop);
    document.addEventListener('keydown', (e) => { if (e.key === ' ' && e.target === document.body) { e.preventDefault(); button.focus(); start(); } });
  }
  // The drawn period follows what is staged; the server draws it.
  document.addEventListener('staged', () => location.reload());
  const which = document.getElementById('which');
  let place = null;
  const pick = (g) => {
    if (!button || button.disabled) return;
    place = g.dataset.place;
    for (const o of drawing.querySelectorAll('.pick')) o.classList.toggle('chosen', o === g);
    which.hidden = false;
    which.querySelector('button').focus();
  };
  for (const g of drawing.querySelectorAll('.pick')) {
    g.addEventListener('click', () => pick(g));
    g.addEventListener('keydown', (e) => { if (e.key === 'Enter' || e.key === ' ') { e.preventDefault(); pick(g); } });
  }
  which?.addEventListener('click', async (e) => {
    const way = e.target.dataset.way;
    if (!way) return;
    try { await post(`${at()}/motors/answer`, { pad: Number(button.dataset.pad), place, direction: Number(way) }); location.reload(); } catch (error) { fail(error); }
  });
}
