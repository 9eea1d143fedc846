// Sheet 53: power spectral density, measured behind filtered.
import { getJson } from '../shell/http.js';
import { ink } from '../_parts/ink.js';
import { drawMap } from './map.js';
import { exports, line, onPick, picked, plot, reader } from '../_parts/plot.js';

export async function startNoise() {
  const box = document.getElementById('noise-plot');
  if (!box) return;
  const [log, beside] = await Promise.all([getJson(box.dataset.url), box.dataset.beside ? getJson(box.dataset.beside) : null]);
  const read = reader();
  const canvas = document.getElementById('noise-map');
  const draw = () => {
    const axis = picked()[0];
    const showMap = document.querySelector('[name="view"]:checked').value === 'map' && log.charts.map?.[axis];
    canvas.hidden = !showMap;
    box.hidden = Boolean(showMap);
    document.querySelector('.exports').hidden = Boolean(showMap);
    if (showMap) { drawMap(canvas, log.charts.map[axis], log.report.noise.ridges, axis, read); return; }
    const s = log.charts.spectrum[axis];
    const o = beside?.charts.spectrum[axis];
    const bins = Math.max(s.measured_db.length, s.filtered_db.length);
    const x = Array.from({ length: bins }, (_, i) => i * s.step_hz);
    // Another log may have another rate: its bins are put on this one's by their frequency.
    const on = (values, step) => x.map((hz) => { const k = hz / step; const i = Math.floor(k); return i + 1 < values.length ? values[i] + (k - i) * (values[i + 1] - values[i]) : null; });
    const series = [line('measured', '--measured'), line('filtered', `--${axis}`, { width: 2 })];
    const data = [x, s.measured_db.length ? s.measured_db : x.map(() => null), s.filtered_db.length ? s.filtered_db : x.map(() => null)];
    const names = ['measured', 'filtered'];
    if (o) {
      series.push(line('measured beside', '--measured', { dash: [2, 4] }), line('filtered beside', `--${axis}`, { dash: [2, 4] }));
      data.push(on(o.measured_db, o.step_hz), on(o.filtered_db, o.step_hz));
      names.push('', `in ${box.dataset.besideName}`);
    }
    const peaks = log.report.spectrum[axis].measured?.peaks ?? [];
    const marks = (u) => {
      const g = u.ctx;
      const r = devicePixelRatio || 1;
      g.save();
      g.font = `${11 * r}px "IBM Plex Mono", monospace`;
      g.fillStyle = ink('--ink');
      g.strokeStyle = ink('--ink');
      g.textAlign = 'center';
      const taken = [];
      for (const p of peaks.slice(0, 5)) {
        if (p.hz < u.scales.x.min || p.hz > u.scales.x.max) continue;
        const px = u.valToPos(p.hz, 'x', true);
        if (taken.some((t) => Math.abs(t - px) < 56 * r)) continue;
        taken.push(px);
        const py = u.valToPos(p.db, 'y', true);
        g.beginPath(); g.moveTo(px, py - 3 * r); g.lineTo(px, py - 12 * r); g.stroke();
        g.fillText(`${p.hz.toFixed(0)} Hz`, px, Math.max(u.bbox.top + 10 * r, py - 16 * r));
      }
      g.restore();
    };
    plot(box, {
      series, data, x: 'frequency, Hz', y: 'power density, dB of (deg/s)²/Hz', names, right: 86,
      range: (u, lo, hi) => [Math.max(-70, Math.floor(lo / 10) * 10), Math.ceil((hi + 6) / 10) * 10],
      hooks: { draw: [marks] },
      reading: (i) => read(i == null ? '' : `${x[i].toFixed(1)} Hz  measured ${fmt(data[1][i])}  filtered ${fmt(data[2][i])} dB`),
    });
    exports(box, `${box.dataset.name}-${axis}-spectrum`, () => ['hz', ...series.map((q) => q.label.replaceAll(' ', '_') + '_db')]);
  };
  const fmt = (v) => (v == null ? '–' : v.toFixed(1));
  draw();
  onPick(draw);
  for (const radio of document.querySelectorAll('[name="view"]')) radio.addEventListener('change', draw);
  new ResizeObserver(() => { if (!canvas.hidden) draw(); }).observe(canvas.parentElement);
  document.addEventListener('theme', draw);
}
