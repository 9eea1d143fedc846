// Sheet 61: the step flown, staged and proposed; what a push does; the margins; P against D. All of it comes from the server.
import { attach } from '../_parts/attach.js';
import { exports, line, onPick, plot, reader, tint } from '../_parts/plot.js';
import { getJson } from '../shell/http.js';
import { map } from './map.js';
import { nyquist } from './nyquist.js';

const SETS = { flown: {}, staged: { dash: [8, 3] }, proposed: { dash: [2, 3] } };
const INK = { staged: '--staged', proposed: '--accent' };

attach('#gains-plot', (box, signal) => {
    const read = reader();
    const held = { steps: null, loop: null, map: null };
    const drawn = () => document.querySelector('input[name="drawn"]:checked')?.value ?? 'step';
    const draw = async () => {
        if (!held.steps) return;
        const what = drawn();
        if (what === 'map' && !held.map) held.map = (await getJson(`${box.dataset.loop}&map=1`)).map;
        if (signal.aborted) return;
        read('');
        const axis = box.dataset.axis;
        const loops = held.loop.loops;
        box.onkeydown = null;
        if (what === 'step') steps(box, axis, held.steps[axis], loops, read);
        else if (what === 'push') pushes(box, loops, read);
        else if (what === 'bode') bode(box, loops, read);
        else if (what === 'nyquist') nyquist(box, loops, read);
        else map(box, held.map, loops, read);
        box.dataset.what = what;
    };
    let last = '';
    const load = async () => {
        const [now, loop] = await Promise.all([getJson(box.dataset.url), getJson(box.dataset.loop)]);
        const all = JSON.stringify([now, loop, box.dataset.axis]);
        if (all !== last) {
            last = all;
            Object.assign(held, { steps: now, loop, map: null });
            await draw();
        }
        box.dataset.predicted = String(Date.now());
    };
    document.addEventListener('change', (e) => e.target.name === 'drawn' && draw(), { signal });
    onPick(draw, signal);
    document.addEventListener('theme', draw, { signal });
    load();
    return load;
});

const nothing = (box) => {
    box.textContent = 'The log says nothing about this axis; the column on the right says why.';
};

const ink = (name, axis) => INK[name] ?? `--${axis}`;

function steps(box, axis, data, loops, read) {
    if (!data?.measured?.values && !data?.predicted) return nothing(box);
    const x = Array.from({ length: 251 }, (_, i) => i);
    const series = [line('asked', '--ink-soft', { dash: [6, 4], width: 1 })];
    const columns = [x, x.map(() => 1)];
    const names = ['asked'];
    const bands = [];
    const on = (values, step) => x.map((ms) => values[Math.round(ms / step)] ?? null);
    const m = data.measured;
    if (m?.values) {
        if (m.low?.length) {
            series.push(line('low', `--${axis}`, { width: 0 }), line('high', `--${axis}`, { width: 0 }));
            columns.push(on(m.low, m.step_ms), on(m.high, m.step_ms));
            names.push('', '');
            bands.push({ series: [columns.length - 1, columns.length - 2], fill: tint(`--${axis}`) });
        }
        series.push(line(`${axis} measured`, `--${axis}`, { width: 2.2 }));
        columns.push(on(m.values, m.step_ms));
        names.push('flown');
    }
    if (data.predicted && data.standing !== 'as flown' && data.stable) {
        series.push(line(`${axis} predicted`, INK.staged, { width: 2, ...SETS.staged }));
        columns.push(on(data.predicted, 1));
        names.push(data.standing);
    }
    if (data.proposal && loops.proposed) {
        series.push(line(`${axis} proposed`, INK.proposed, { width: 1.4, ...SETS.proposed }));
        columns.push(on(data.proposal.step, 1));
        names.push('proposed');
    }
    exports(box, `${box.dataset.name}-${axis}-step`, () => ['ms', ...series.map((q) => q.label.replaceAll(' ', '_'))]);
    plot(box, {
        series,
        data: columns,
        bands,
        names,
        x: 'ms after the stick',
        y: 'share of what was asked',
        right: 104,
        range: (u, lo, hi) => [Math.min(-0.1, Math.floor(lo * 5) / 5), Math.max(1.4, Math.ceil(hi * 5 + 0.2) / 5)],
        reading: (i) => read(i == null ? '' : `${x[i]} ms  ${said(names, columns, i, 2)}`),
    });
}

const said = (names, columns, i, digits) =>
    names
        .map((n, k) => (n && columns[k + 1][i] != null ? `${n} ${columns[k + 1][i].toFixed(digits)}` : ''))
        .filter(Boolean)
        .join('  ');

function pushes(box, loops, read) {
    const names = Object.keys(loops).filter((n) => loops[n].figures.stable);
    if (!names.length) return nothing(box);
    const x = loops[names[0]].push.map((_, i) => i).slice(0, 401);
    const columns = [x, ...names.map((n) => loops[n].push.slice(0, 401))];
    const series = names.map((n) => line(n, ink(n, box.dataset.axis), { width: 2, ...SETS[n] }));
    exports(box, `${box.dataset.name}-${box.dataset.axis}-push`, () => ['ms', ...names]);
    plot(box, {
        series,
        data: columns,
        names,
        x: 'ms after a push of 100 deg/s² begins',
        y: 'turned by it, deg/s',
        right: 92,
        range: (u, lo, hi) => [Math.min(0, lo), hi * 1.15],
        reading: (i) => read(i == null ? '' : `${x[i]} ms  ${said(names, columns, i, 2)} deg/s`),
    });
}

function bode(box, loops, read) {
    const names = Object.keys(loops);
    if (!names.length) return nothing(box);
    const x = loops[names[0]].curve.map(([hz]) => hz);
    const gain = ([, re, im]) => 10 * Math.log10(re * re + im * im);
    const phases = (curve) => {
        let turns = 0;
        let before = null;
        return curve.map(([, re, im]) => {
            let at = (Math.atan2(im, re) * 180) / Math.PI + turns;
            if (before !== null && at - before > 180) [turns, at] = [turns - 360, at - 360];
            if (before !== null && at - before < -180) [turns, at] = [turns + 360, at + 360];
            before = at;
            return at;
        });
    };
    const columns = [x];
    const series = [];
    const labels = [];
    for (const n of names) {
        series.push(line(`${n} gain dB`, ink(n, box.dataset.axis), { width: 2, ...SETS[n] }));
        columns.push(loops[n].curve.map(gain));
        labels.push(`${n}, gain`);
    }
    for (const n of names) {
        series.push(line(`${n} phase over -180`, ink(n, box.dataset.axis), { width: 1, ...SETS[n] }));
        columns.push(phases(loops[n].curve).map((deg) => (deg + 180) / 4));
        labels.push(`${n}, phase`);
    }
    exports(box, `${box.dataset.name}-${box.dataset.axis}-bode`, () => ['hz', ...series.map((q) => q.label.replaceAll(' ', '_'))]);
    plot(box, {
        series,
        data: columns,
        names: labels,
        x: 'frequency, Hz',
        y: 'gain, dB; phase above −180°, by 4°',
        right: 104,
        xScale: { distr: 3 },
        xAxis: { splits: () => [1, 2, 5, 10, 20, 50, 100, 200], filter: (_, s) => s, values: (_, s) => s.map(String) },
        range: () => [-40, 45],
        reading: (i) =>
            read(
                i == null
                    ? ''
                    : `${x[i].toFixed(1)} Hz  ${names
                          .map(
                              (n, k) =>
                                  `${n} ${columns[k + 1][i].toFixed(1)} dB, ${(columns[k + 1 + names.length][i] * 4 - 180).toFixed(0)}°`,
                          )
                          .join('  ')}`,
            ),
    });
}
