// Sheet 62: the chains' gain over the measured spectrum; cutoffs are dragged on it and staged.
import { attach } from '../_parts/attach.js';
import { exports, line, onPick, picked, plot, reader } from '../_parts/plot.js';
import { stage } from '../_parts/stage.js';
import { getJson } from '../shell/http.js';

attach('#filters-plot', (box, signal) => {
    const read = reader();
    let log = null;
    let chains = null;
    const draw = () => chains && drawChains(box, chains, log, read);
    const load = async () => {
        if (box.dataset.log) log ??= await getJson(box.dataset.log);
        const now = await getJson(box.dataset.url);
        if (JSON.stringify(now) !== JSON.stringify(chains)) {
            chains = now;
            draw();
        }
        box.dataset.predicted = String(Date.now());
    };
    onPick(draw, signal);
    document.addEventListener('theme', draw, { signal });
    load();
    return load;
});

const same = (c) => JSON.stringify(c.now) === JSON.stringify(c.staged);

function drawChains(box, { chains }, log, read) {
    const axis = picked()[0];
    const x = chains.now.hz;
    const series = [line('rate path', '--accent', { width: 2 }), line('D path', '--accent', { width: 1.6, dash: [8, 3] })];
    const data = [x, chains.now.rate_db, chains.now.d_db];
    const names = ['rate path', 'D path'];
    if (!same(chains)) {
        const on = (values) =>
            x.map((hz) => {
                const i = chains.staged.hz.indexOf(hz);
                return i < 0 ? null : values[i];
            });
        const differs = (key) => JSON.stringify(chains.now[key]) !== JSON.stringify(chains.staged[key]);
        if (differs('rate_db')) {
            series.push(line('rate path staged', '--staged', { width: 2 }));
            data.push(on(chains.staged.rate_db));
            names.push('rate, staged');
        }
        if (differs('d_db')) {
            series.push(line('D path staged', '--staged', { dash: [8, 3], width: 2 }));
            data.push(on(chains.staged.d_db));
            names.push('D, staged');
        }
    }
    const s = log?.charts.spectrum[axis];
    if (s?.measured_db.length) {
        const top = Math.max(...s.measured_db.slice(Math.ceil(20 / s.step_hz)));
        series.push(line('measured noise', '--measured', { width: 1 }));
        data.push(
            x.map((hz) => {
                const k = Math.round(hz / s.step_hz);
                return k < s.measured_db.length ? s.measured_db[k] - top : null;
            }),
        );
        names.push('noise, to its peak');
    }
    const u = plot(box, {
        series,
        data,
        names,
        x: 'frequency, Hz',
        y: 'gain, dB',
        right: 116,
        range: () => [-60, 6],
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
        const place = (hz) => {
            grip.style.left = `${u.valToPos(hz, 'x')}px`;
            grip.setAttribute('aria-valuenow', hz);
            grip.title = `${name}: ${hz} Hz`;
        };
        grip.setAttribute('role', 'slider');
        grip.setAttribute('aria-label', `${input.getAttribute('aria-label')}`);
        grip.setAttribute('aria-valuemin', input.min);
        grip.setAttribute('aria-valuemax', input.max);
        const clamp = (hz) => Math.max(Number(input.min), Math.min(Number(input.max), Math.round(hz / step) * step));
        place(Number(input.value));
        grip.style.top = /^d_path|filter\.d/.test(name) ? '24px' : '2px';
        grip.addEventListener('pointerdown', (e) => {
            e.preventDefault();
            e.stopPropagation();
            grip.setPointerCapture(e.pointerId);
            grip.dataset.held = '1';
        });
        grip.addEventListener('mousedown', (e) => e.stopPropagation());
        grip.addEventListener('pointermove', (e) => {
            if (grip.dataset.held) {
                const hz = clamp(u.posToVal(e.clientX - u.over.getBoundingClientRect().left, 'x'));
                place(hz);
                input.value = hz;
            }
        });
        grip.addEventListener('pointerup', () => {
            if (grip.dataset.held) {
                delete grip.dataset.held;
                stage({ [name]: input.value });
            }
        });
        grip.addEventListener('keydown', (e) => {
            const d = { ArrowLeft: -step, ArrowRight: step, PageDown: -10 * step, PageUp: 10 * step }[e.key];
            if (d) {
                e.preventDefault();
                e.stopPropagation();
                const hz = clamp(Number(input.value) + d);
                input.value = hz;
                place(hz);
                clearTimeout(grip._t);
                grip._t = setTimeout(() => stage({ [name]: hz }), 500);
            }
        });
        u.over.append(grip);
    }
}
