// Sheet 61: the measured step, and the one the staged gains would give; both come from the server.
import { getJson } from '../shell/http.js';
import { exports, line, onPick, picked, plot, reader, AXES } from '../_parts/plot.js';
import { tint } from '../response/response.js';
import { stage } from './fields.js';

export async function startGains() {
  const box = document.getElementById('gains-plot');
  if (!box) return;
  const read = reader();
  let data = await getJson(box.dataset.url);
  const draw = () => { drawSteps(box, data, read); findings(data, box.dataset.name); };
  const over = AXES.filter((a) => data[a].verdict === 'overshoots');
  if (over.length) for (const i of document.querySelectorAll('.axis-pick input')) i.checked = over.includes(i.value);
  draw();
  onPick(draw);
  document.addEventListener('theme', draw);
  document.addEventListener('staged', async () => { data = await getJson(box.dataset.url); draw(); box.dataset.predicted = String(Date.now()); });
}

function drawSteps(box, data, read) {
  const axes = picked().filter((a) => data[a].measured?.values || data[a].predicted);
  if (!axes.length) { box.textContent = 'For these axes the log tells nothing; the column at the right says why.'; return; }
  const x = Array.from({ length: 251 }, (_, i) => i);
  const series = [line('asked', '--ink-soft', { dash: [6, 4], width: 1 })];
  const columns = [x, x.map(() => 1)];
  const names = ['asked'];
  const bands = [];
  for (const a of axes) {
    const m = data[a].measured;
    const on = (values, step) => x.map((ms) => values[Math.round(ms / step)] ?? null);
    if (m?.values) {
      if (m.low.length) {
        series.push(line(`${a} low`, `--${a}`, { width: 0 }), line(`${a} high`, `--${a}`, { width: 0 }));
        columns.push(on(m.low, m.step_ms), on(m.high, m.step_ms));
        names.push('', '');
        bands.push({ series: [columns.length - 1, columns.length - 2], fill: tint(`--${a}`) });
      }
      series.push(line(`${a} measured`, `--${a}`, { width: 2.2 }));
      columns.push(on(m.values, m.step_ms));
      names.push(`${a}, flown`);
    }
    if (data[a].predicted && !data[a].same_gains && data[a].stable) { series.push(line(`${a} predicted`, '--staged', { width: 2, dash: [8, 3] })); columns.push(on(data[a].predicted, 1)); names.push(`${a}, as staged`); }
  }
  exports(box, `${box.dataset.name}-gains`, () => ['ms', ...series.map((q) => q.label.replaceAll(' ', '_'))]);
  plot(box, {
    series, data: columns, bands, names, x: 'ms after the stick', y: 'share of what was asked', right: 104,
    range: (u, lo, hi) => [Math.min(-0.1, Math.floor(lo * 5) / 5), Math.max(1.4, Math.ceil(hi * 5 + 0.2) / 5)],
    reading: (i) => read(i == null ? '' : `${x[i]} ms  ${names.map((n, k) => (n && k ? `${n} ${columns[k + 1][i]?.toFixed(2) ?? '–'}` : '')).filter(Boolean).join('  ')}`),
  });
}

function findings(data, name) {
  const box = document.getElementById('gain-findings');
  box.replaceChildren();
  const answer = [];
  for (const a of AXES) {
    const d = data[a];
    const section = document.createElement('section');
    section.className = 'finding';
    const h = document.createElement('h3');
    const p = document.createElement('p');
    section.append(h, p);
    if (d.why) { h.textContent = `${cap(a)}: cannot tell`; p.textContent = d.why; box.append(section); continue; }
    const peak = d.measured_peak;
    h.textContent = d.verdict === 'overshoots' ? `${cap(a)} overshoots by ${Math.round(100 * (peak - 1))} %` : `${cap(a)} ${d.verdict ?? 'was flown'}`;
    h.append(Object.assign(document.createElement('span'), { textContent: peak ? `peak ${peak.toFixed(2)}` : '' }));
    p.textContent = `Worked out from ${name}; with the gains flown, the model peaks at ${d.modelled_peak.toFixed(2)}.`;
    if (!d.same_gains) {
      const q = document.createElement('p');
      q.className = 'staged-text';
      q.textContent = d.stable ? `As staged: peak ${d.numbers.peak.toFixed(2)}, half there in ${d.numbers.delay_ms?.toFixed(1) ?? '–'} ms.` : 'As staged it would oscillate. Do not fly this.';
      section.append(q);
      answer.push(d.stable ? `${a} would peak at ${d.numbers.peak.toFixed(2)} instead of ${peak?.toFixed(2) ?? '–'}` : `${a} would oscillate`);
    }
    if (d.proposal) {
      const r = d.proposal;
      const q = document.createElement('p');
      q.textContent = `Better: P ${r.from_p} → ${r.p}, D ${r.from_d} → ${r.d}. It would peak at ${r.peak.toFixed(2)}, half there in ${r.delay_ms.toFixed(1)} ms; ${Math.round(100 * (r.noise - 1))} % more noise reaches the motors, so feel them after the flight.`;
      const row = document.createElement('div');
      row.className = 'do';
      const button = Object.assign(document.createElement('button'), { type: 'button', className: 'btn stage', textContent: `Stage P ${r.p} and D ${r.d}` });
      button.dataset.propose = a;
      button.addEventListener('click', () => stage({ [`gain.${a}.p`]: r.p, [`gain.${a}.d`]: r.d }));
      row.append(button);
      section.append(q, row);
    } else if (d.verdict === 'overshoots') {
      section.append(Object.assign(document.createElement('p'), { textContent: 'No P and D in reach were found that better it without a good deal more noise or lag.' }));
    }
    box.append(section);
  }
  if (answer.length) document.getElementById('gains-answer').textContent = `As staged, ${answer.join('; ')}.`;
  else { const worst = AXES.filter((a) => data[a].verdict === 'overshoots'); document.getElementById('gains-answer').textContent = worst.length ? `${cap(worst.join(' and '))} ${worst.length > 1 ? 'overshoot' : 'overshoots'} with these gains.` : 'With these gains the craft answers cleanly.'; }
}

const cap = (s) => s[0].toUpperCase() + s.slice(1);
