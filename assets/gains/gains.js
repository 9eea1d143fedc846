// Sheet 61: the measured step, and the one the staged gains would give; both come from the server.
import { attach } from '../_parts/attach.js';
import { exports, line, onPick, picked, plot, reader, tint } from '../_parts/plot.js';
import { getJson } from '../shell/http.js';

attach('#gains-plot', (box, signal) => {
    const read = reader();
    let data = null;
    const draw = () => data && drawSteps(box, data, read);
    const load = async () => {
        const now = await getJson(box.dataset.url);
        if (JSON.stringify(now) !== JSON.stringify(data)) {
            data = now;
            draw();
        }
        box.dataset.predicted = String(Date.now());
    };
    onPick(draw, signal);
    document.addEventListener('theme', draw, { signal });
    load();
    return load;
});

function drawSteps(box, data, read) {
    const axes = picked().filter((a) => data[a].measured?.values || data[a].predicted);
    if (!axes.length) {
        box.textContent = 'For these axes the log tells nothing; the column at the right says why.';
        return;
    }
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
        if (data[a].predicted && data[a].standing !== 'as flown' && data[a].stable) {
            series.push(line(`${a} predicted`, '--staged', { width: 2, dash: [8, 3] }));
            columns.push(on(data[a].predicted, 1));
            names.push(`${a}, ${data[a].standing}`);
        }
    }
    exports(box, `${box.dataset.name}-gains`, () => ['ms', ...series.map((q) => q.label.replaceAll(' ', '_'))]);
    plot(box, {
        series,
        data: columns,
        bands,
        names,
        x: 'ms after the stick',
        y: 'share of what was asked',
        right: 104,
        range: (u, lo, hi) => [Math.min(-0.1, Math.floor(lo * 5) / 5), Math.max(1.4, Math.ceil(hi * 5 + 0.2) / 5)],
        reading: (i) =>
            read(
                i == null
                    ? ''
                    : `${x[i]} ms  ${names
                          .map((n, k) => (n && k ? `${n} ${columns[k + 1][i]?.toFixed(2) ?? '–'}` : ''))
                          .filter(Boolean)
                          .join('  ')}`,
            ),
    });
}
