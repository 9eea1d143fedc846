// Sheet 13: wires are drawn by dragging from pin to pad, or by Enter on one and then on the other.
import { post } from '../shell/http.js';

export function startWiring() {
  const svg = document.getElementById('wiring');
  if (!svg) return;
  const problem = document.getElementById('wire-problem');
  const rubber = document.getElementById('rubber');
  const draw = async (what, from = '', to = '', focus = '') => {
    try { await post(svg.dataset.draw, { what, from, to }); sessionStorage.setItem('wire-focus', focus); location.reload(); } catch (error) { problem.textContent = error.message; problem.hidden = false; }
  };
  let from = null;
  const begin = (spot) => { from = spot; spot.classList.add('begun'); };
  const end = () => { from?.classList.remove('begun'); from = null; rubber.setAttribute('hidden', ''); };
  const connect = (spot) => { const a = from; end(); if (a && spot && a !== spot) draw('wire', a.dataset.spot, spot.dataset.spot, spot.dataset.spot); };
  const point = (e) => new DOMPoint(e.clientX, e.clientY).matrixTransform(svg.getScreenCTM().inverse());
  const spotAt = (e) => document.elementFromPoint(e.clientX, e.clientY)?.closest('[data-spot]');

  svg.addEventListener('pointerdown', (e) => {
    const spot = e.target.closest('[data-spot]');
    if (!spot || from) return;
    e.preventDefault();
    spot.focus();
    begin(spot);
    const move = (m) => {
      const p = point(m);
      rubber.removeAttribute('hidden');
      rubber.setAttribute('d', `M${spot.dataset.x} ${spot.dataset.y}L${p.x.toFixed(0)} ${p.y.toFixed(0)}`);
    };
    const up = (u) => { window.removeEventListener('pointermove', move); window.removeEventListener('pointerup', up); connect(spotAt(u)); };
    window.addEventListener('pointermove', move);
    window.addEventListener('pointerup', up);
  });
  svg.addEventListener('keydown', (e) => {
    const spot = e.target.closest('[data-spot]');
    const wire = e.target.closest('.wire');
    const jumper = e.target.closest('[data-bridge-pad]');
    if (e.key === 'Escape') end();
    if (wire && (e.key === 'Delete' || e.key === 'Backspace')) { e.preventDefault(); draw('cut', wire.dataset.from, wire.dataset.to, wire.dataset.from); }
    if (e.key !== 'Enter' && e.key !== ' ') return;
    e.preventDefault();
    if (spot) { if (from) connect(spot); else begin(spot); }
    if (jumper) draw('bridge', jumper.dataset.bridgePad);
  });
  svg.addEventListener('click', (e) => { const jumper = e.target.closest('[data-bridge-pad]'); if (jumper) draw('bridge', jumper.dataset.bridgePad); });
  document.addEventListener('click', (e) => { const part = e.target.closest('[data-no-part]'); if (part) draw('no_part', part.dataset.noPart); });
  document.addEventListener('click', async (e) => {
    const button = e.target.closest('[data-listen]');
    if (!button) return;
    const heard = document.getElementById('heard');
    heard.textContent = 'listening…';
    try { heard.textContent = (await post(svg.dataset.draw.replace('/draw', '/listen'), { part: button.dataset.listen, every: button.dataset.every ?? '' })).said; } catch (error) { heard.textContent = error.message; }
  });
  document.getElementById('put-part').addEventListener('change', (e) => { if (e.target.value) draw('part', e.target.value); });
  document.getElementById('print-card').addEventListener('click', () => window.print());
  document.getElementById('save-card').addEventListener('click', (e) => save(svg, e.target.dataset.name));
  document.addEventListener('staged', () => location.reload());
  const focus = sessionStorage.getItem('wire-focus');
  sessionStorage.removeItem('wire-focus');
  if (focus) svg.querySelector(`[data-spot="${CSS.escape(focus)}"]`)?.focus();
}

// The drawing as a file of its own, with the inks it is seen in.
function save(svg, name) {
  const copy = svg.cloneNode(true);
  const originals = svg.querySelectorAll('*');
  copy.querySelectorAll('*').forEach((el, i) => {
    const css = getComputedStyle(originals[i]);
    for (const key of ['fill', 'stroke', 'stroke-width', 'stroke-dasharray', 'font-family', 'font-size', 'font-weight', 'text-anchor']) el.style.setProperty(key, css.getPropertyValue(key));
  });
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([new XMLSerializer().serializeToString(copy)], { type: 'image/svg+xml' }));
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 1000);
}
