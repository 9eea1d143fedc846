// Sheet 53, the noise map: power over throttle and frequency, with its ridges; bins without data are hatched.
import { ink } from '../_parts/ink.js';

const shades = () => [0, 1, 2, 3, 4, 5].map((i) => ink(`--map-${i}`)).map((c) => { const m = /^#(..)(..)(..)$/.exec(c.trim()); return m ? m.slice(1).map((h) => parseInt(h, 16)) : [0, 0, 0]; });

export function drawMap(canvas, map, ridges, axis, read) {
  const ratio = devicePixelRatio || 1;
  const w = canvas.clientWidth;
  const h = canvas.clientHeight;
  canvas.width = w * ratio;
  canvas.height = h * ratio;
  const g = canvas.getContext('2d');
  g.scale(ratio, ratio);
  const [left, right, top, bottom] = [52, 130, 8, 34];
  const cells = Uint8Array.from(atob(map.cells), (c) => c.charCodeAt(0));
  const rows = cells.length / Math.max(1, map.bins.length);
  const topHz = (rows - 1) * map.step_hz;
  const X = (pct) => left + (pct / 100) * (w - left - right);
  const Y = (hz) => h - bottom - (hz / topHz) * (h - top - bottom);
  const scale = shades();
  const colour = (v) => { const p = (v / 255) * 5; const i = Math.min(4, Math.floor(p)); const f = p - i; return `rgb(${[0, 1, 2].map((k) => Math.round(scale[i][k] + f * (scale[i + 1][k] - scale[i][k]))).join(',')})`; };
  // No data: hatched over the whole, then covered where there is some.
  g.strokeStyle = ink('--hairline');
  g.lineWidth = 1;
  g.save();
  g.beginPath(); g.rect(left, top, w - left - right, h - top - bottom); g.clip();
  for (let x = left - h; x < w; x += 8) { g.beginPath(); g.moveTo(x, h); g.lineTo(x + h, 0); g.stroke(); }
  g.restore();
  const cw = X(map.bin_pct) - X(0);
  map.bins.forEach((bin, b) => { for (let k = 1; k < rows; k++) { g.fillStyle = colour(cells[b * rows + k]); g.fillRect(X(bin * map.bin_pct), Y((k + 0.5) * map.step_hz), cw + 0.6, Y((k - 0.5) * map.step_hz) - Y((k + 0.5) * map.step_hz) + 0.6); } });
  g.strokeStyle = ink('--ink');
  g.strokeRect(left, top, w - left - right, h - top - bottom);
  g.font = '11px "IBM Plex Mono", monospace';
  g.fillStyle = ink('--ink-soft');
  g.textAlign = 'center';
  for (let p = 0; p <= 100; p += 20) g.fillText(`${p} %`, X(p), h - bottom + 14);
  g.fillText('throttle', X(50), h - 4);
  g.textAlign = 'right';
  const every = topHz > 1500 ? 500 : topHz > 600 ? 200 : 100;
  for (let f = 0; f <= topHz; f += every) g.fillText(`${f}`, left - 5, Y(f) + 4);
  g.fillText('Hz', left - 5, top + 22);
  const taken = [];
  for (const r of ridges.filter((one) => one.axis === axis)) {
    g.strokeStyle = ink('--accent');
    g.lineWidth = 1.8;
    g.setLineDash(r.kind === 'standing' ? [] : r.kind === 'climbing' ? [8, 3] : [2, 4]);
    g.beginPath(); g.moveTo(X(r.from_pct), Y(r.hz_at_zero + r.hz_per_pct * r.from_pct)); g.lineTo(X(r.to_pct), Y(r.hz_at_zero + r.hz_per_pct * r.to_pct)); g.stroke();
    g.setLineDash([]);
    let y = Y(r.hz_at_zero + r.hz_per_pct * r.to_pct) + 4;
    while (taken.some((t) => Math.abs(t - y) < 13)) y += 13;
    taken.push(y);
    g.textAlign = 'left';
    g.fillStyle = ink('--ink');
    g.fillText(r.kind === 'standing' ? `${r.hz.toFixed(0)} Hz standing` : r.kind === 'climbing' ? `climbing${r.harmonic ? ` ×${r.harmonic}` : ''}` : `${r.hz.toFixed(0)} Hz, ?`, w - right + 6, Math.max(14, Math.min(h - bottom, y)));
  }
  canvas.onmousemove = (e) => {
    const box = canvas.getBoundingClientRect();
    const pct = ((e.clientX - box.left - left) / (w - left - right)) * 100;
    const hz = ((h - bottom - (e.clientY - box.top)) / (h - top - bottom)) * topHz;
    const b = map.bins.indexOf(Math.floor(pct / map.bin_pct));
    const k = Math.round(hz / map.step_hz);
    if (pct < 0 || pct > 100 || hz < 0 || hz > topHz) { read(''); return; }
    read(`${pct.toFixed(0)} %  ${hz.toFixed(0)} Hz  ${b < 0 ? 'no data' : `${(map.low_db + (cells[b * rows + k] / 255) * (map.high_db - map.low_db)).toFixed(0)} dB`}`);
  };
}
