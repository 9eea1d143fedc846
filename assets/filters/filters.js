// Sheet 62: a log's spectrum before and behind the filters; each filter stands on a lane above it, where it is dragged, and what it
// would leave is drawn meanwhile. All figures come from the server.
import { attach } from '../_parts/attach.js';
import { ink } from '../_parts/ink.js';
import { exports, line, onPick, picked, plot, reader } from '../_parts/plot.js';
import { stage } from '../_parts/stage.js';
import { getJson } from '../shell/http.js';
import './as_map.js';
import { curve } from './trade.js';

const FROM_HZ = 10;
const TICKS = [10, 20, 50, 100, 200, 500, 1000, 2000];
const TRIES_MS = 120;

const field = (name) => document.querySelector(`[data-setting="${CSS.escape(name)}"]`);

attach('#filters-plot', (box, signal) => {
    const read = reader();
    const held = { chosen: box.dataset.chosen || null, u: null };
    let data = null;
    const draw = () => {
        if (data && Object.keys(data.axes).length) held.u = spectrum(box, data, read);
        // The plot finds its place only after this.
        setTimeout(() => {
            lanes(box, held, data, { tried });
            choose(held, held.chosen);
        });
    };
    // What is drawn is drawn anew only where something about it is new: a hand may be on it.
    let drawn = '';
    const load = async () => {
        data = await getJson(box.dataset.url);
        const things = [...document.querySelectorAll('#filter-lanes [data-thing]')].map((t) => t.outerHTML);
        const values = [...document.querySelectorAll('#filter-fields [data-setting]')].map((f) => f.value);
        const now = JSON.stringify([data, things, values]);
        if (now !== drawn) draw();
        else choose(held, held.chosen);
        drawn = now;
        document.getElementById('filter-live').textContent = '';
        box.dataset.predicted = String(Date.now());
    };
    // While something is dragged: what it would leave, and what it would do to the loop.
    let trying = false;
    let wanted = null;
    const tried = async (values) => {
        wanted = values;
        if (trying) return;
        trying = true;
        while (wanted) {
            const with_ = new URLSearchParams(Object.entries(wanted).map(([name, v]) => [`with[${name}]`, v]));
            wanted = null;
            const then = await getJson(`${box.dataset.url}${box.dataset.url.includes('?') ? '&' : '?'}${with_}`);
            if (signal.aborted) break;
            data = then;
            held.u = spectrum(box, data, read);
            held.u._bands = bands(data);
            drops(held.u);
            say(data);
            await new Promise((r) => setTimeout(r, TRIES_MS));
        }
        trying = false;
    };
    const setting = new URLSearchParams(location.search).get('setting');
    if (setting) held.chosen = field(setting)?.closest('[data-fields]')?.dataset.fields ?? held.chosen;
    onPick(draw, signal);
    document.addEventListener('theme', draw, { signal });
    let wide = box.clientWidth;
    const fit = new ResizeObserver(() => {
        if (!held.u || box.clientWidth === wide) return;
        wide = box.clientWidth;
        // Once the plot has its new width, too.
        requestAnimationFrame(() => signal.aborted || lanes(box, held, data, { tried }));
    });
    fit.observe(box);
    signal.addEventListener('abort', () => fit.disconnect());
    load();
    return load;
});

attach('#filter-fields', (form, signal) => {
    form.addEventListener(
        'click',
        (e) => {
            const away = e.target.closest('[data-away]');
            if (away) stage(JSON.parse(away.dataset.away));
        },
        { signal },
    );
});

attach('#trade-off', curve);

const db = (values, step) => (hz) => {
    const at = hz / step;
    const k = Math.floor(at);
    return k + 1 < values.length ? values[k] + (at - k) * (values[k + 1] - values[k]) : null;
};

function spectrum(box, { axes, beside }, read) {
    const one = axes[picked()[0]] ?? Object.values(axes)[0];
    const top = (one.measured_db.length - 1) * one.step_hz;
    const x = [];
    for (let hz = FROM_HZ; hz < top; hz = Math.max(hz + one.step_hz / 2, hz * 1.008)) x.push(hz);
    const on = (values) => x.map(db(values, one.step_hz));
    const series = [line('before the filters', '--measured', { width: 1 }), line('behind them', '--accent', { width: 2 })];
    const data = [x, on(one.measured_db), on(one.now_db)];
    const names = ['before the filters', 'behind them'];
    if (one.staged_db) {
        series.push(line('as staged', '--staged', { width: 2, dash: [8, 3] }));
        data.push(on(one.staged_db));
        names.push('as staged');
    }
    if (one.beside_db) {
        series.push(line(beside, '--t5', { width: 1.4 }));
        data.push(x.map(db(one.beside_db, one.beside_step_hz)));
        names.push(beside);
    }
    const least = Math.min(...data[1].filter((v) => v !== null)) - 25;
    const u = plot(box, {
        series,
        data,
        names,
        x: 'frequency, Hz',
        y: 'dB of (deg/s)²/Hz',
        right: 116,
        xScale: { distr: 3 },
        xAxis: { splits: () => TICKS.filter((t) => t <= top), filter: (_, s) => s, values: (_, s) => s.map(String) },
        range: (_, lo, hi) => [Math.max(least, Math.floor(lo / 10) * 10), Math.ceil(hi / 10) * 10],
        hooks: { drawClear: [(v) => verticals(v)] },
        reading: (i) =>
            read(i == null ? '' : `${x[i].toFixed(0)} Hz  ${names.map((n, k) => `${n} ${data[k + 1][i]?.toFixed(0)}`).join('  ')} dB`),
    });
    exports(box, `${box.dataset.name}-filters`, () => ['hz', ...series.map((q) => q.label.replaceAll(' ', '_') + '_db')]);
    return u;
}

// Where the grips stand, down through the drawing; where the motors turned, shaded.
function verticals(u) {
    const g = u.ctx;
    const { left, top, width, height } = u.bbox;
    g.save();
    g.beginPath();
    g.rect(left, top, width, height);
    g.clip();
    for (const [from, to] of u._bands ?? []) {
        const [a, b] = [u.valToPos(from, 'x', true), u.valToPos(to, 'x', true)];
        g.fillStyle = ink('--accent-wash');
        g.fillRect(a, top, b - a, height);
    }
    g.lineWidth = devicePixelRatio;
    g.setLineDash([2 * devicePixelRatio, 3 * devicePixelRatio]);
    for (const [hz, changed] of u._drops ?? []) {
        const at = Math.round(u.valToPos(hz, 'x', true));
        g.strokeStyle = ink(changed ? '--staged' : '--accent');
        g.beginPath();
        g.moveTo(at, top);
        g.lineTo(at, top + height);
        g.stroke();
    }
    g.restore();
}

function drops(u) {
    if (!u) return;
    u._drops = [...document.querySelectorAll('#filter-lanes [role="slider"]')].map((s) => [
        Number(s.getAttribute('aria-valuenow')),
        s.classList.contains('changed'),
    ]);
    u.redraw(false);
}

function say({ staged }) {
    const live = document.getElementById('filter-live');
    if (!staged) {
        live.textContent = '';
        return;
    }
    const axis = picked()[0];
    const loop = staged.loops?.[axis];
    const parts = [`${axis}: ${staged.residual_dps[axis]?.toFixed(2)} deg/s left`, `${staged.delay_ms.toFixed(2)} ms`];
    if (loop?.modulusThen != null) parts.push(`margin ${loop.modulusThen.toFixed(2)}`);
    if (loop) parts.push(loop.peakThen == null ? 'oscillates' : `peak ${loop.peakThen.toFixed(2)}`);
    live.textContent = parts.join(' · ');
}

function choose(held, id) {
    held.chosen = id;
    for (const set of document.querySelectorAll('[data-fields]')) set.classList.toggle('chosen', set.dataset.fields === id);
    for (const thing of document.querySelectorAll('#filter-lanes [data-of]')) thing.classList.toggle('held', thing.dataset.of === id);
}

// A grip for each setting that is dragged, on the lane of its filter, over the frequencies of the plot below.
function lanes(box, held, data, hands) {
    const root = document.getElementById('filter-lanes');
    if (!root || !held.u) return;
    const u = held.u;
    root.dataset.drawn = '1';
    const focused = document.activeElement?.dataset.setting_;
    for (const old of root.querySelectorAll('[data-of]')) old.remove();
    const over = u.over.getBoundingClientRect();
    for (const rail of root.querySelectorAll('.rail')) {
        const from = over.left - rail.getBoundingClientRect().left;
        const at = (hz) => from + Math.max(0, Math.min(over.width, u.valToPos(hz, 'x')));
        const hzAt = (px) => u.posToVal(Math.max(0, Math.min(over.width, px - over.left)), 'x');
        for (const link of rail.querySelectorAll('[data-thing]')) things(rail, link, { at, hzAt, held, hands, u });
    }
    u._bands = bands(data);
    const orders = motorOrders();
    const lane = root.querySelector('[data-lane="motors"] .rail');
    for (const [n, [lo, hi]] of u._bands.entries()) {
        if (!lane) break;
        const over_ = u.over.getBoundingClientRect();
        const from = over_.left - lane.getBoundingClientRect().left;
        const bar = document.createElement('span');
        bar.className = 'bar';
        bar.dataset.of = 'motors';
        bar.textContent = `${orders[n]} ×`;
        const [a, b] = [lo, hi].map((hz) => from + Math.max(0, Math.min(over_.width, u.valToPos(hz, 'x'))));
        Object.assign(bar.style, { left: `${a}px`, width: `${Math.max(10, b - a)}px` });
        bar.addEventListener('click', () => choose(held, 'motors'));
        lane.append(bar);
    }
    drops(u);
    if (focused) root.querySelector(`[data-setting_="${CSS.escape(focused)}"]`)?.focus();
}

const motorOrders = () => (field('notch.motor.orders')?.value ?? '').split(',').map(Number).filter(Boolean);

// Where motor notches stand nearly all the time.
const bands = ({ rotor_hz: turned }) => (turned ? motorOrders().map((k) => turned.map((hz) => k * hz)) : []);

function things(rail, link, { at, hzAt, held, hands, u }) {
    const id = link.dataset.thing;
    for (const [name, what] of Object.entries(JSON.parse(link.dataset.grips))) {
        const input = field(name);
        if (!input) continue;
        const ends = input.type === 'number' ? [Number(input.value)] : input.value.split(',').map(Number);
        const lane = rail.parentElement.querySelector('.name').textContent.trim();
        const grips = ends.map((hz, n) => {
            const grip = document.createElement('button');
            grip.type = 'button';
            grip.className = `thing grip-on ${link.classList.contains('changed') ? 'changed' : ''} ${ends.length > 1 ? `end-${n}` : ''}`;
            grip.dataset.of = id;
            grip.dataset.setting_ = `${name}#${n}`;
            const which = ends.length > 1 ? ['lower end of the ', 'upper end of the '][n] + what : what;
            grip.textContent = ends.length > 1 ? (n ? '▸' : '◂') : what === 'cutoff' ? link.textContent : `${what} ${hz} Hz`;
            grip.setAttribute('role', 'slider');
            grip.setAttribute('aria-label', input.getAttribute('aria-label')?.replace(/, Hz$/, '') ?? `${lane}: ${which}`);
            if (ends.length > 1) grip.setAttribute('aria-label', `${lane}: ${which}`);
            place(grip, hz, at);
            rail.append(grip);
            return grip;
        });
        const value = () => grips.map((g) => g.getAttribute('aria-valuenow')).join(',');
        const step = Number(input.step) || 5;
        const low = Number(input.min) || (what === 'band' ? 60 : FROM_HZ);
        const high = Number(input.max) || (what === 'band' ? 900 : 2000);
        for (const [n, grip] of grips.entries()) {
            grip.setAttribute('aria-valuemin', low);
            grip.setAttribute('aria-valuemax', high);
            const clamp = (hz) => {
                const from = n === 1 ? Number(grips[0].getAttribute('aria-valuenow')) + 20 : low;
                const to = grips.length > 1 && n === 0 ? Number(grips[1].getAttribute('aria-valuenow')) - 20 : high;
                return Math.max(from, Math.min(to, Number((Math.round(hz / step) * step).toFixed(2))));
            };
            const moved = (hz) => {
                place(grip, clamp(hz), at);
                if (ends.length === 1) grip.textContent = grip.textContent.replace(/[\d.]+(?= Hz)/, clamp(hz));
                input.value = value();
                drops(u);
                hands.tried({ [name]: value() });
            };
            pulled(grip, { hzAt, moved, id, held, end: () => stage({ [name]: value() }) });
            grip.addEventListener('keydown', (e) => {
                const d = { ArrowLeft: -step, ArrowRight: step, PageDown: -10 * step, PageUp: 10 * step }[e.key];
                if (e.key === 'Delete') return document.querySelector(`#fields-${CSS.escape(id)} [data-away]`)?.click();
                if (!d) return;
                e.preventDefault();
                e.stopPropagation();
                moved(Number(grip.getAttribute('aria-valuenow')) + d);
                clearTimeout(grip._t);
                grip._t = setTimeout(() => stage({ [name]: value() }), 500);
            });
        }
    }
}

function place(grip, hz, at) {
    grip.style.left = `${at(hz)}px`;
    grip.setAttribute('aria-valuenow', hz);
    grip.title = `${hz} Hz`;
}

function pulled(grip, { hzAt, moved, id, held, end }) {
    let from = null;
    grip.addEventListener('pointerdown', (e) => {
        e.preventDefault();
        grip.focus();
        choose(held, id);
        grip.setPointerCapture(e.pointerId);
        from = { x: e.clientX, moved: false };
    });
    grip.addEventListener('pointermove', (e) => {
        if (!from || (!from.moved && Math.abs(e.clientX - from.x) < 3)) return;
        from.moved = true;
        moved(hzAt(e.clientX));
    });
    grip.addEventListener('pointerup', () => {
        if (from?.moved) end();
        from = null;
    });
    grip.addEventListener('focus', () => choose(held, id));
}
