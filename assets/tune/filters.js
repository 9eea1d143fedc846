// Sheet 62: the chains' gain over the measured spectrum; cutoffs are dragged on it and staged.
import { getJson } from '../shell/http.js';
import { ink } from '../_parts/ink.js';
import { exports, line, onPick, picked, plot, reader } from '../_parts/plot.js';
import { stage } from './fields.js';

export async function startFilters() {
  const box = document.getElementById('filters-plot');
  if (!box) return;
  const read = reader();
  const log = box.dataset.log ? await getJson(box.dataset.log) : null;
  let chains = await getJson(box.dataset.url);
  const draw = () => { drawChains(box, chains, log, read); says(chains); };
  draw();
  onPick(draw);
  document.addEventListener('theme', draw);
  document.addEventListener('staged', async () => { chains = await getJson(box.dataset.url); draw(); box.dataset.predicted = String(Date.now()); });
}

const same = (c) => JSON.stringify(c.now) === JSON.stringify(c.staged);

function drawChains(box, { chains }, log, read) {
  const axis = picked()[0];
  const x = chains.now.hz;
  const series = [line('rate path', '--accent', { width: 2 }), line('D path', '--accent', { width: 1.6, dash: [8, 3] })];
  const data = [x, chains.now.rate_db, chains.now.d_db];
  const names = ['rate path', 'D path'];
  if (!same(chains)) {
    const on = (values) => x.map((hz) => { const i = chains.staged.hz.indexOf(hz); return i < 0 ? null : values[i]; });
    const differs = (key) => JSON.stringify(chains.now[key]) !== JSON.stringify(chains.staged[key]);
    if (differs('rate_db')) { series.push(line('rate path staged', '--staged', { width: 2 })); data.push(on(chains.staged.rate_db)); names.push('rate, staged'); }
    if (differs('d_db')) { series.push(line('D path staged', '--staged', { dash: [8, 3], width: 2 })); data.push(on(chains.staged.d_db)); names.push('D, staged'); }
  }
  const s = log?.charts.spectrum[axis];
  if (s?.measured_db.length) {
    const top = Math.max(...s.measured_db.slice(Math.ceil(20 / s.step_hz)));
    series.push(line('measured noise', '--measured', { width: 1 }));
    data.push(x.map((hz) => { const k = Math.round(hz / s.step_hz); return k < s.measured_db.length ? s.measured_db[k] - top : null; }));
    names.push('noise, to its peak');
  }
  const u = plot(box, {
    series, data, names, x: 'frequency, Hz', y: 'gain, dB', right: 116, range: () => [-60, 6],
    reading: (i) => read(i == null ? '' : `${x[i]} Hz  rate path ${data[1][i].toFixed(1)}  D path ${data[2][i].toFixed(1)} dB`),
  });
  exports(box, `${box.dataset.name ?? 'craft'}-filters`, () => ['hz', ...series.map((q) => q.label.replaceAll(' ', '_') + '_db')]);
  setTimeout(() => handles(box, u));
}

// A grip for each cutoff that is in use, on the frequency axis; dragged or moved by arrow keys.
function handles(box, u) {
  for (const input of document.querySelectorAll('[data-setting$="_hz"]')) {
    const name = input.dataset.setting;
    if (!/cutoff_hz$|^filter\./.test(name) || /command/.test(name)) continue;
    const kind = document.querySelector(`[data-setting="${name.replace('cutoff_hz', 'kind')}"]`);
    if (kind && kind !== input && kind.value === 'off') continue;
    const grip = document.createElement('button');
    grip.type = 'button';
    grip.className = 'grip';
    grip.textContent = /^d_path|filter\.d/.test(name) ? 'D' : 'rate';
    const step = Number(input.step) || 1;
    const place = (hz) => { grip.style.left = `${u.valToPos(hz, 'x')}px`; grip.setAttribute('aria-valuenow', hz); grip.title = `${name}: ${hz} Hz`; };
    grip.setAttribute('role', 'slider');
    grip.setAttribute('aria-label', `${input.getAttribute('aria-label')}`);
    grip.setAttribute('aria-valuemin', input.min);
    grip.setAttribute('aria-valuemax', input.max);
    const clamp = (hz) => Math.max(Number(input.min), Math.min(Number(input.max), Math.round(hz / step) * step));
    place(Number(input.value));
    grip.style.top = /^d_path|filter\.d/.test(name) ? '24px' : '2px';
    grip.addEventListener('pointerdown', (e) => { e.preventDefault(); e.stopPropagation(); grip.setPointerCapture(e.pointerId); grip.dataset.held = '1'; });
    grip.addEventListener('mousedown', (e) => e.stopPropagation());
    grip.addEventListener('pointermove', (e) => { if (grip.dataset.held) { const hz = clamp(u.posToVal(e.clientX - u.over.getBoundingClientRect().left, 'x')); place(hz); input.value = hz; } });
    grip.addEventListener('pointerup', () => { if (grip.dataset.held) { delete grip.dataset.held; stage({ [name]: input.value }); } });
    grip.addEventListener('keydown', (e) => { const d = { ArrowLeft: -step, ArrowRight: step, PageDown: -10 * step, PageUp: 10 * step }[e.key]; if (d) { e.preventDefault(); e.stopPropagation(); const hz = clamp(Number(input.value) + d); input.value = hz; place(hz); clearTimeout(grip._t); grip._t = setTimeout(() => stage({ [name]: hz }), 500); } });
    u.over.append(grip);
  }
}

function says({ chains }) {
  const box = document.getElementById('filter-findings');
  box.replaceChildren();
  const now = chains.now;
  const next = same(chains) ? null : chains.staged;
  const section = (title, rows) => {
    const el = document.createElement('section');
    el.className = 'finding';
    el.append(Object.assign(document.createElement('h3'), { textContent: title }));
    const dl = document.createElement('dl');
    dl.className = 'pairs fig';
    for (const [k, a, b, unit] of rows) { dl.append(Object.assign(document.createElement('dt'), { textContent: k })); const dd = document.createElement('dd'); dd.textContent = `${a} ${unit}`; if (b !== null && b !== a) { dd.textContent = `${a} → `; dd.append(Object.assign(document.createElement('b'), { className: 'staged-text', textContent: `${b} ${unit}` })); } dl.append(dd); }
    el.append(dl);
    box.append(el);
  };
  section('What they cost', [['rate path at 30 Hz', now.rate_delay_ms.toFixed(2), next?.rate_delay_ms.toFixed(2) ?? null, 'ms'], ['D path at 30 Hz', now.d_delay_ms.toFixed(2), next?.d_delay_ms.toFixed(2) ?? null, 'ms']]);
  const axes = Object.keys(now.residual);
  if (axes.length) section('What is left of this log\'s noise', axes.map((a) => [a, now.residual[a].toFixed(2), next?.residual[a]?.toFixed(2) ?? null, 'deg/s']));
  document.getElementById('filters-answer').textContent = next ? `As staged, the rate path costs ${next.rate_delay_ms.toFixed(1)} ms at 30 Hz (now ${now.rate_delay_ms.toFixed(1)}), the D path ${next.d_delay_ms.toFixed(1)} (now ${now.d_delay_ms.toFixed(1)}).` : `The rate path costs ${now.rate_delay_ms.toFixed(1)} ms at 30 Hz, the D path ${now.d_delay_ms.toFixed(1)} ms.`;
}
