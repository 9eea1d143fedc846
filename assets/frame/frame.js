// Sheet 14: takes a pose, draws the live attitude in projection, and moves the arms of a custom frame.
import { post } from '../shell/http.js';
import { stage } from '../tune/fields.js';

export function startFrame() {
  const drawing = document.getElementById('frame-drawing');
  if (!drawing) return;
  document.querySelector('.axis-pick').addEventListener('change', (e) => { for (const g of drawing.querySelectorAll('[data-command]')) g.toggleAttribute('hidden', g.dataset.command !== e.target.value); });
  document.addEventListener('click', async (e) => {
    const button = e.target.closest('[data-pose]');
    if (!button) return;
    button.disabled = true;
    try { await post(button.dataset.url, { pose: button.dataset.pose }); location.reload(); } catch (error) {
      const problem = document.getElementById('pose-problem');
      problem.textContent = error.message;
      problem.hidden = false;
      button.disabled = false;
    }
  });
  attitude();
  // A custom frame starts from the arms of the one before, so the server stages the choice.
  const layout = document.querySelector('[data-layout]');
  layout?.addEventListener('change', async (e) => {
    e.stopPropagation();
    try { await post(layout.dataset.layout, { layout: e.target.value }); location.reload(); } catch (error) { const problem = document.getElementById('stage-problem'); problem.textContent = error.message; problem.hidden = false; }
  });
  document.addEventListener('staged', () => location.reload());
  if (drawing.dataset.custom) arms(drawing);
}

function arms(drawing) {
  const scale = Number(drawing.dataset.scale);
  const place = (el, x, y) => { sessionStorage.setItem('arm', el.dataset.arm); return stage({ [`arm.${el.dataset.arm}.forward_mm`]: Math.round(-y * scale), [`arm.${el.dataset.arm}.right_mm`]: Math.round(x * scale) }); };
  for (const el of drawing.querySelectorAll('[data-arm]')) {
    const circle = el.querySelector('circle');
    const at = () => [Number(circle.getAttribute('cx')), Number(circle.getAttribute('cy'))];
    el.addEventListener('pointerdown', (e) => {
      e.preventDefault();
      el.focus();
      const matrix = drawing.getScreenCTM().inverse();
      const move = (m) => { const p = new DOMPoint(m.clientX, m.clientY).matrixTransform(matrix); circle.setAttribute('cx', p.x.toFixed(1)); circle.setAttribute('cy', p.y.toFixed(1)); };
      const up = () => { window.removeEventListener('pointermove', move); window.removeEventListener('pointerup', up); place(el, ...at()); };
      window.addEventListener('pointermove', move);
      window.addEventListener('pointerup', up);
    });
    el.addEventListener('keydown', (e) => {
      const by = { ArrowLeft: [-5, 0], ArrowRight: [5, 0], ArrowUp: [0, -5], ArrowDown: [0, 5] }[e.key];
      if (by) { e.preventDefault(); const [x, y] = at(); place(el, x + by[0] / scale, y + by[1] / scale); }
      if (e.key === 'Delete') { e.preventDefault(); place(el, 0, 0); }
    });
  }
  document.getElementById('add-arm').addEventListener('change', (e) => {
    const spots = { front: [0, -110], rear: [0, 110], left: [-110, 0], right: [110, 0], front_right: [80, -80], front_left: [-80, -80], rear_right: [80, 80], rear_left: [-80, 80] };
    if (e.target.value) place({ dataset: { arm: e.target.value } }, ...spots[e.target.value]);
  });
  const held = sessionStorage.getItem('arm');
  sessionStorage.removeItem('arm');
  if (held) drawing.querySelector(`[data-arm="${held}"]`)?.focus();
}

// The craft by its real geometry, turned as the board says, seen from behind and above.
function attitude() {
  const svg = document.getElementById('attitude-3d');
  const body = document.getElementById('attitude-body');
  const says = document.getElementById('attitude-says');
  const motors = JSON.parse(svg.dataset.motors);
  const reach = Math.max(...motors.map(([x, y]) => Math.hypot(x, y)), 0.01);
  const show = (rollDeg, pitchDeg) => {
    const [r, p, view] = [rollDeg, pitchDeg, 24].map((d) => (d * Math.PI) / 180);
    // Body x forward, y right, z down; roll about x, then pitch about y; then looked at from behind, a little from above.
    const project = ([x, y, z]) => {
      const y1 = y * Math.cos(r) - z * Math.sin(r);
      const z1 = y * Math.sin(r) + z * Math.cos(r);
      const x2 = x * Math.cos(p) + z1 * Math.sin(p);
      const z2 = -x * Math.sin(p) + z1 * Math.cos(p);
      return [y1, z2 * Math.cos(view) - x2 * Math.sin(view)];
    };
    const k = 82 / reach;
    const at = (v) => project(v).map((c) => (c * k).toFixed(1)).join(' ');
    const ring = ([x, y]) => Array.from({ length: 25 }, (_, i) => { const a = (i / 24) * 2 * Math.PI; return `${i ? 'L' : 'M'}${at([x + 0.34 * reach * Math.cos(a), y + 0.34 * reach * Math.sin(a), -0.06 * reach])}`; }).join('');
    const b = 0.2 * reach;
    body.innerHTML = motors.map(([x, y]) => `<path class="arm" d="M${at([0, 0, 0])}L${at([x, y, 0])}"/><path class="motor-side" d="M${at([x, y, 0])}L${at([x, y, -0.06 * reach])}"/><path class="ring" d="${ring([x, y])}"/>`).join('')
      + `<path class="hull" d="M${at([b, -b, 0])}L${at([b, b, 0])}L${at([-b, b, 0])}L${at([-b, -b, 0])}Z"/><path class="board-nose" d="M${at([0, 0, 0])}L${at([2.2 * b, 0, 0])}"/>`;
  };
  show(0, 0);
  document.addEventListener('live', ({ detail: { now } }) => {
    const a = now.link.attitude;
    if (a) show(a[0], a[1]);
    says.textContent = a ? `roll ${a[0].toFixed(1)}°, pitch ${a[1].toFixed(1)}°` : 'the board does not answer';
    svg.classList.toggle('silent', !a);
  });
}
