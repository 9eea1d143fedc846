// Sheet 54: step responses in one drawing, several logs laid over each other.
import { attach } from '../_parts/attach.js';
import { besides as listed, exports, line, onPick, picked, plot, reader, tint } from '../_parts/plot.js';
import { getJson } from '../shell/http.js';
import { Frames } from './frames.js';

const DASHES = [
    [2, 4],
    [9, 3, 2, 3],
    [6, 6],
    [1.5, 2.5],
    [12, 4],
];
const SHOWN_MS = 300;

const windowed = () => document.querySelector('[name="view"]:checked')?.value === 'frames';

attach('#response-plot', (box, signal) => {
    const read = reader();
    const besides = listed();
    const strip = document.getElementById('frames');
    const frames = strip ? new Frames(strip, read, signal) : null;
    let log = null;
    let others = [];
    const draw = () => {
        if (!log) return;
        const windows = windowed();
        box.hidden = windows;
        document.querySelector('.step-numbers').hidden = windows;
        frames?.show(windows, picked()[0], log);
        if (windows) return;
        const axes = picked();
        // Ranked tables would be long: only the axes that are drawn.
        for (const row of document.querySelectorAll('[data-rank]'))
            row.hidden = others.length > 0 && axes.length > 0 && !axes.includes(row.dataset.rank);
        const any = axes.map((a) => [log, ...others].map((l) => l.charts.step[a]).find(Boolean)).find(Boolean);
        if (!any) {
            box.textContent = axes.length
                ? 'This log does not show how these axes respond; the column on the right says why.'
                : 'Choose an axis.';
            return;
        }
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
            series,
            data,
            bands,
            names,
            x: 'ms after the stick',
            y: 'rotation, share of what was asked',
            right: others.length ? 122 : 62,
            range: (u, lo, hi) => [Math.min(-0.1, Math.floor(lo * 5) / 5), Math.max(1.4, Math.ceil(hi * 5 + 0.2) / 5)],
            reading: (i) =>
                read(
                    i == null
                        ? ''
                        : `${x[i].toFixed(0)} ms  ${series
                              .map((s, k) => (names[k] && k ? `${names[k]} ${data[k + 1][i]?.toFixed(2) ?? '–'}` : ''))
                              .filter(Boolean)
                              .join('  ')}`,
                ),
        });
        exports(box, `${box.dataset.name}-step`, () => ['ms', ...series.map((q) => q.label.replaceAll(' ', '_'))]);
    };

    const load = async () => {
        [log, ...others] = await Promise.all([getJson(box.dataset.url), ...besides.map((b) => getJson(b.url))]);
        draw();
    };
    const pick = (e) => {
        // Window by window there is one axis at a time.
        if (e.target.name === 'axis' && e.target.checked && windowed()) {
            for (const input of document.querySelectorAll('.axis-pick input[name="axis"]')) input.checked = input === e.target;
        }
        draw();
    };
    onPick(pick, signal);
    document.addEventListener('theme', draw, { signal });
    load();
    return load;
});
