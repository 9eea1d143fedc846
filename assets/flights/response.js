// Sheet 54: step responses of all axes in one drawing, two logs laid over each other.
import { getJson } from '../shell/http.js';
import { ink } from '../_parts/ink.js';
import { exports, line, onPick, picked, plot, reader } from '../_parts/plot.js';

export async function startResponse() {
  const box = document.getElementById('response-plot');
  if (!box) return;
  const [log, beside] = await Promise.all([getJson(box.dataset.url), box.dataset.beside ? getJson(box.dataset.beside) : null]);
  const read = reader();
  const draw = () => {
    const axes = picked();
    const any = axes.map((a) => log.charts.step[a] ?? beside?.charts.step[a]).find(Boolean);
    if (!any) { box.textContent = axes.length ? 'This log does not tell how these axes respond; the column at the right says why.' : 'Choose an axis.'; return; }
    const last = 300;
    const x = any.values.slice(0, Math.round(last / any.step_ms) + 1).map((_, i) => i * any.step_ms);
    const series = [line('asked', '--ink-soft', { dash: [6, 4], width: 1 })];
    const data = [x, x.map(() => 1)];
    const names = ['asked'];
    const bands = [];
    const on = (s, values) => x.map((ms) => values[Math.round(ms / s.step_ms)] ?? null);
    for (const a of axes) {
      const s = log.charts.step[a];
      const o = beside?.charts.step[a];
      if (s) {
        if (s.low.length) {
          series.push(line(`${a} low`, `--${a}`, { width: 0 }), line(`${a} high`, `--${a}`, { width: 0 }));
          data.push(on(s, s.low), on(s, s.high));
          names.push('', '');
          bands.push({ series: [data.length - 1, data.length - 2], fill: tint(`--${a}`) });
        }
        series.push(line(a, `--${a}`, { width: 2.2 }));
        data.push(on(s, s.values));
        names.push(beside ? `${a} ${box.dataset.name}` : a);
      }
      if (o) { series.push(line(`${a} beside`, `--${a}`, { dash: [2, 4], width: 1.6 })); data.push(on(o, o.values)); names.push(`${a} ${box.dataset.besideName}, dotted`); }
    }
    plot(box, {
      series, data, bands, names, x: 'ms after the stick', y: 'rotation, share of what was asked', right: beside ? 138 : 62,
      range: (u, lo, hi) => [Math.min(-0.1, Math.floor(lo * 5) / 5), Math.max(1.4, Math.ceil(hi * 5 + 0.2) / 5)],
      reading: (i) => read(i == null ? '' : `${x[i].toFixed(0)} ms  ${series.map((s, k) => (names[k] && k ? `${names[k]} ${data[k + 1][i]?.toFixed(2) ?? '–'}` : '')).filter(Boolean).join('  ')}`),
    });
    exports(box, `${box.dataset.name}-step`, () => ['ms', ...series.map((q) => q.label.replaceAll(' ', '_'))]);
  };
  draw();
  onPick(draw);
  document.addEventListener('theme', draw);
}

export function tint(name) { return `color-mix(in srgb, ${ink(name)} 18%, transparent)`; }
