// Sheet 54: step responses in one drawing, several logs laid over each other.
import { getJson } from '../shell/http.js';
import { ink } from '../_parts/ink.js';
import { exports, line, onPick, picked, plot, reader } from '../_parts/plot.js';
import { startFrames } from './frames.js';

const DASHES = [[2, 4], [9, 3, 2, 3], [6, 6], [1.5, 2.5], [12, 4]];
const SHOWN_MS = 300;

export async function startResponse() {
  const box = document.getElementById('response-plot');
  if (!box) return;
  const besides = JSON.parse(box.dataset.besides);
  const [log, ...others] = await Promise.all([getJson(box.dataset.url), ...besides.map((b) => getJson(b.url))]);
  const read = reader();
  const frames = startFrames(log, read);
  const draw = () => {
    const windowed = document.querySelector('[name="view"]:checked')?.value === 'frames';
    box.hidden = windowed;
    document.querySelector('.step-numbers').hidden = windowed;
    frames?.show(windowed, picked()[0]);
    if (windowed) return;
    const axes = picked();
    // Ranked tables would be long: only the axes that are drawn.
    for (const row of document.querySelectorAll('[data-rank]')) row.hidden = others.length > 0 && axes.length > 0 && !axes.includes(row.dataset.rank);
    const any = axes.map((a) => [log, ...others].map((l) => l.charts.step[a]).find(Boolean)).find(Boolean);
    if (!any) { box.textContent = axes.length ? 'This log does not tell how these axes respond; the column at the right says why.' : 'Choose an axis.'; return; }
    const x = any.values.slice(0, Math.round(SHOWN_MS / any.step_ms) + 1).map((_, i) => i * any.step_ms);
    const series = [line('asked', '--ink-soft', { dash: [6, 4], width: 1 })];
    const data = [x, x.map(() => 1)];
    const names = ['asked'];
    const bands = [];
    const on = (s, values) => x.map((ms) => values[Math.round(ms / s.step_ms)] ?? null);
    for (const a of axes) {
      const s = log.charts.step[a];
      if (s) {
        if (s.low.length) {
          series.push(line(`${a} low`, `--${a}`, { width: 0 }), line(`${a} high`, `--${a}`, { width: 0 }));
          data.push(on(s, s.low), on(s, s.high));
          names.push('', '');
          bands.push({ series: [data.length - 1, data.length - 2], fill: tint(`--${a}`) });
        }
        series.push(line(a, `--${a}`, { width: 2.2 }));
        data.push(on(s, s.values));
        names.push(others.length ? `${a} ${box.dataset.name}` : a);
      }
      others.forEach((other, i) => {
        const o = other.charts.step[a];
        if (!o) return;
        series.push(line(`${a} ${besides[i].name}`, `--${a}`, { dash: DASHES[i], width: 1.6 }));
        data.push(on(o, o.values));
        names.push(`${a} ${besides[i].name}`);
      });
    }
    plot(box, {
      series, data, bands, names, x: 'ms after the stick', y: 'rotation, share of what was asked', right: others.length ? 122 : 62,
      range: (u, lo, hi) => [Math.min(-0.1, Math.floor(lo * 5) / 5), Math.max(1.4, Math.ceil(hi * 5 + 0.2) / 5)],
      reading: (i) => read(i == null ? '' : `${x[i].toFixed(0)} ms  ${series.map((s, k) => (names[k] && k ? `${names[k]} ${data[k + 1][i]?.toFixed(2) ?? '–'}` : '')).filter(Boolean).join('  ')}`),
    });
    exports(box, `${box.dataset.name}-step`, () => ['ms', ...series.map((q) => q.label.replaceAll(' ', '_'))]);
  };
  // After striking a window out the page comes back to where it was.
  const back = sessionStorage.getItem('frames shown');
  sessionStorage.removeItem('frames shown');
  if (back && frames) {
    document.querySelector('[name="view"][value="frames"]').checked = true;
    for (const i of document.querySelectorAll('.axis-pick input[name="axis"]')) i.checked = i.value === back;
  }
  draw();
  onPick((e) => {
    // Window by window there is one axis at a time.
    if (e?.target.name === 'axis' && e.target.checked && document.querySelector('[name="view"]:checked')?.value === 'frames') for (const i of document.querySelectorAll('.axis-pick input[name="axis"]')) i.checked = i === e.target;
    draw();
  });
  sizes();
  document.addEventListener('theme', draw);
}

// Moves counted as small, medium and large by limits of one's own.
function sizes() {
  const form = document.getElementById('size-limits');
  form?.addEventListener('submit', async (e) => {
    e.preventDefault();
    const problem = form.querySelector('.problem');
    problem.hidden = true;
    const response = await fetch(`${form.dataset.url}?${new URLSearchParams({ ...Object.fromEntries(new FormData(form)), passage: form.dataset.passage })}`, { headers: { Accept: 'text/html, application/json' } });
    if (response.ok) { document.getElementById('sizes').innerHTML = await response.text(); return; }
    problem.textContent = (await response.json()).error;
    problem.hidden = false;
  });
}

export function tint(name) { return `color-mix(in srgb, ${ink(name)} 18%, transparent)`; }
