// Sheet 22: curves drawn from the server's points; a handle that is dragged or pushed by keys asks for the curve it would give.
import { attach } from '../_parts/attach.js';
import { stage } from '../_parts/stage.js';
import { getJson } from '../shell/http.js';

const NS = 'http://www.w3.org/2000/svg';
const AXES = ['roll', 'pitch', 'yaw'];
const LIVE_MS = 100;

function make(parent, tag, attributes, text = '') {
    const el = document.createElementNS(NS, tag);
    for (const [name, value] of Object.entries(attributes)) el.setAttribute(name, value);
    if (text) el.textContent = text;
    parent.append(el);
    return el;
}

// A plot's own units: from values to places on the drawing and back.
const scale = (from, to, a, b) => ({
    to: (v) => a + ((v - from) / (to - from)) * (b - a),
    of: (p) => from + ((p - a) / (b - a)) * (to - from),
});

const path = (points, x, y, k = 1) => points.map((p, i) => `${i ? 'L' : 'M'}${x.to(p[0]).toFixed(1)} ${y.to(p[k]).toFixed(1)}`).join('');

const nice = (most) => {
    const step = [0.5, 1, 2, 5, 10, 20, 50, 100, 200, 400].find((s) => most / s <= 6) ?? 500;
    return { step, top: Math.ceil((most * 1.05) / step) * step };
};

function axes(svg, x, y, { xs, ys, xName, yName, box }) {
    const [l, t, r, b] = box;
    for (const v of xs) {
        make(svg, 'path', { class: 'grid', d: `M${x.to(v)} ${t}V${b}` });
        make(svg, 'text', { class: 'fig mid', x: x.to(v), y: b + 15 }, String(v));
    }
    for (const v of ys) {
        make(svg, 'path', { class: 'grid', d: `M${l} ${y.to(v)}H${r}` });
        make(svg, 'text', { class: 'fig end', x: l - 5, y: y.to(v) + 4 }, String(v));
    }
    make(svg, 'text', { class: 'cap mid', x: (l + r) / 2, y: b + 30 }, xName);
    make(svg, 'text', { class: 'cap', x: l, y: t - 7 }, yName);
}

const steps = (step, top) => Array.from({ length: Math.round(top / step) + 1 }, (_, i) => Number((i * step).toFixed(3)));

attach('#feel', (root, signal) => {
    let drawn = JSON.parse(root.dataset.drawn);
    let trying = null;
    let pulled = null;
    let live = null;
    let focus = '';
    const [curves, throttle, lowPass] = ['feel-curves', 'feel-throttle', 'feel-low-pass'].map((id) => document.getElementById(id));

    // What would come of values that are under the hand; staged when it is let go.
    let asking = false;
    let wanted = null;
    const ask = async (values) => {
        wanted = values;
        if (asking) return;
        asking = true;
        while (wanted) {
            const now = wanted;
            wanted = null;
            try {
                const query = Object.entries(now).map(([n, v]) => `values[${n}]=${v}`);
                trying = { values: now, curves: await getJson(`${root.dataset.try}?${query.join('&')}`) };
            } catch (error) {
                trying = { values: now, curves: null, problem: error.message };
            }
            draw();
        }
        asking = false;
    };
    const settle = (values) => {
        pulled = null;
        stage(values);
    };

    const handle = (svg, { id, label, at, low, high, value, step, axis, staged, move, values }) => {
        const g = make(svg, 'circle', {
            id,
            class: `handle ${axis ? `axis-${axis}` : ''} ${staged ? 'staged' : ''}`,
            cx: at[0],
            cy: at[1],
            r: 8,
            tabindex: 0,
            role: 'slider',
            'aria-label': label,
            'aria-valuemin': low,
            'aria-valuemax': high,
            'aria-valuenow': value,
        });
        g.addEventListener('pointerdown', (e) => {
            e.preventDefault();
            focus = id;
            pulled = { svg, move, values, last: null };
        });
        g.addEventListener('keydown', (e) => {
            const way = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1, PageUp: 10, PageDown: -10 }[e.key];
            if (!way) return;
            e.preventDefault();
            focus = id;
            settle(values(Math.max(low, Math.min(high, value + way * step))));
        });
    };
    window.addEventListener(
        'pointermove',
        (e) => {
            if (!pulled) return;
            const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(pulled.svg.getScreenCTM().inverse());
            pulled.last = pulled.move(p);
            ask(pulled.last);
        },
        { signal },
    );
    window.addEventListener('pointerup', () => pulled?.last && settle(pulled.last), { signal });

    const valueOf = (name, otherwise) => Number(trying?.values[name] ?? otherwise);

    const drawCurves = () => {
        const svg = curves;
        svg.replaceChildren();
        const sets = [drawn.now, drawn.staged, drawn.beside, trying?.curves].filter(Boolean);
        const most = Math.max(100, ...sets.flatMap((s) => AXES.map((a) => s.feel[a].at(-1)[1])), ...drawn.points.map((p) => p.value));
        const { step, top } = nice(most);
        const steepest = nice(Math.max(2, ...sets.flatMap((s) => AXES.flatMap((a) => s.feel[a].map((p) => p[2])))));
        const x = scale(0, 100, 52, 500);
        const y = scale(0, top, 300, 22);
        const below = scale(0, steepest.top, 430, 350);
        const box = [52, 22, 500, 300];
        axes(svg, x, y, { xs: [0, 25, 50, 75, 100], ys: steps(step, top), xName: '% of stick', yName: 'rotation, deg/s', box });
        const slope = [52, 350, 500, 430];
        axes(svg, x, below, { xs: [], ys: [0, steepest.top], xName: '', yName: 'slope, deg/s per % of stick', box: slope });
        const ends = [];
        for (const a of AXES) {
            const line = (set, cls) => {
                make(svg, 'path', { class: `curve axis-${a} ${cls}`, d: path(set.feel[a], x, y) });
                make(svg, 'path', { class: `slope axis-${a} ${cls}`, d: path(set.feel[a], x, below, 2) });
            };
            const ahead = trying?.curves ?? drawn.staged;
            if (drawn.beside) line(drawn.beside, 'beside');
            if (drawn.now) line(drawn.now, ahead ? 'was' : '');
            const changed = ahead && JSON.stringify(ahead.feel[a]) !== JSON.stringify(drawn.now?.feel[a]);
            if (changed) line(ahead, 'staged');
            const top1 = (changed ? ahead : drawn.now)?.feel[a].at(-1)[1];
            if (top1 !== undefined) ends.push([a, y.to(top1)]);
        }
        ends.sort((p, q) => p[1] - q[1]);
        for (let i = 0, free = 12; i < ends.length; ++i) {
            free = Math.max(free, ends[i][1] + 4);
            make(svg, 'text', { class: `axis-${ends[i][0]}`, x: 512, y: free }, ends[i][0]);
            free += 16;
        }
        // Points that lie on one another are drawn side by side, so that each can be taken.
        const spots = drawn.points.map((p) => ({ p, value: valueOf(p.name, p.value) }));
        for (const spot of spots) {
            const same = spots.filter((o) => o.p.stick === spot.p.stick && Math.abs(y.to(o.value) - y.to(spot.value)) < 12);
            spot.aside = (same.indexOf(spot) - (same.length - 1) / 2) * 15;
        }
        for (const { p, value, aside } of spots) {
            handle(svg, {
                id: `point-${p.name}`,
                label: `${p.axis} at ${p.stick} % of the stick, deg/s`,
                at: [x.to(p.stick) + aside, y.to(value)],
                low: p.low,
                high: p.high,
                value,
                step: 5,
                axis: p.axis,
                staged: drawn.staged_names.includes(p.name),
                move: (at) => ({ [p.name]: Math.round(Math.max(p.low, Math.min(p.high, y.of(at.y)))) }),
                values: (v) => ({ [p.name]: Math.round(v) }),
            });
        }
        for (const a of AXES) make(svg, 'circle', { class: `live axis-${a}`, 'data-live': a, r: 5, hidden: '' });
        svg.dataset.top = top;
        place();
    };

    const drawThrottle = () => {
        const svg = throttle;
        svg.replaceChildren();
        const x = scale(0, 100, 40, 270);
        const y = scale(0, 100, 180, 22);
        axes(svg, x, y, {
            xs: [0, 50, 100],
            ys: [0, 50, 100],
            xName: '% of stick',
            yName: 'throttle, % of output',
            box: [40, 22, 270, 180],
        });
        const ahead = trying?.curves ?? drawn.staged;
        if (drawn.now) make(svg, 'path', { class: `curve ${ahead ? 'was' : ''}`, d: path(drawn.now.throttle, x, y) });
        if (ahead && JSON.stringify(ahead.throttle) !== JSON.stringify(drawn.now?.throttle))
            make(svg, 'path', { class: 'curve staged', d: path(ahead.throttle, x, y) });
        const [names, limitName] = [['throttle.hover_stick_pct', 'throttle.hover_output_pct'], 'throttle.limit_pct'];
        const [hx, hy] = names.map((n, i) => valueOf(n, drawn.hover[i]));
        // Within what the board takes; one that has no such setting has nothing to drag.
        const within = (name, v) => Math.round(Math.max(drawn.ranges[name].low, Math.min(drawn.ranges[name].high, v)));
        if (!drawn.ranges[limitName] || !drawn.ranges[names[0]]) return;
        handle(svg, {
            id: 'point-hover',
            label: 'hover: stick, %',
            at: [x.to(hx), y.to(hy)],
            ...drawn.ranges[names[0]],
            value: hx,
            step: 1,
            staged: drawn.staged_names.some((n) => names.includes(n)),
            move: (p) => ({ [names[0]]: within(names[0], x.of(p.x)), [names[1]]: within(names[1], y.of(p.y)) }),
            values: (v) => ({ [names[0]]: Math.round(v) }),
        });
        make(svg, 'text', { class: 'cap', x: x.to(hx) + 12, y: y.to(hy) + 4 }, 'hover');
        const limit = valueOf(limitName, drawn.limit);
        handle(svg, {
            id: 'point-limit',
            label: 'throttle limit, %',
            at: [x.to(100), y.to(limit)],
            ...drawn.ranges[limitName],
            value: limit,
            step: 1,
            staged: drawn.staged_names.includes(limitName),
            move: (p) => ({ [limitName]: within(limitName, y.of(p.y)) }),
            values: (v) => ({ [limitName]: Math.round(v) }),
        });
        make(svg, 'circle', { class: 'live', 'data-live': 'throttle', r: 5, hidden: '' });
        place();
    };

    const drawLowPass = () => {
        const svg = lowPass;
        svg.replaceChildren();
        const t = drawn.trade;
        const shown = t.curve.filter((p) => p.delay_ms < 25);
        const most = Math.max(...shown.map((p) => p.residue_pct));
        const x = scale(0, 25, 40, 270);
        const y = scale(0, most * 1.1, 180, 22);
        const up = nice(most);
        axes(svg, x, y, {
            xs: [0, 5, 10, 15, 20, 25],
            ys: steps(up.step, most),
            xName: 'delay at 10 Hz, ms',
            yName: 'command low-pass: steps left, % of stick',
            box: [40, 22, 270, 180],
        });
        make(svg, 'path', {
            class: 'curve',
            d: path(
                shown.map((p) => [p.delay_ms, p.residue_pct]),
                x,
                y,
            ),
        });
        const near = (hz) => t.curve.reduce((best, p) => (Math.abs(Math.log(p.hz / hz)) < Math.abs(Math.log(best.hz / hz)) ? p : best));
        const name = 'command_low_pass.cutoff_hz';
        const mark = (hz, words, dy) => {
            const p = near(hz);
            make(svg, 'circle', { class: 'mark', cx: x.to(p.delay_ms), cy: y.to(p.residue_pct), r: 4 });
            make(svg, 'text', { class: 'cap', x: x.to(p.delay_ms) + 8, y: y.to(p.residue_pct) + dy }, words);
        };
        mark(t.knee, `knee, ${t.knee.toFixed(0)} Hz`, -26);
        if (drawn.cutoff !== drawn.cutoff_now) mark(drawn.cutoff_now, `now, ${drawn.cutoff_now} Hz`, -4);
        const hz = valueOf(name, drawn.cutoff);
        const at = near(hz);
        handle(svg, {
            id: 'point-cutoff',
            label: 'command low-pass cutoff, Hz',
            at: [x.to(at.delay_ms), y.to(at.residue_pct)],
            ...drawn.ranges[name],
            value: hz,
            step: 1,
            staged: drawn.staged_names.includes(name),
            move: (p) => {
                const far = (c) => (x.to(c.delay_ms) - p.x) ** 2 + (y.to(c.residue_pct) - p.y) ** 2;
                return { [name]: Math.round(t.curve.reduce((best, c) => (far(c) < far(best) ? c : best)).hz) };
            },
            values: (v) => ({ [name]: Math.round(v) }),
        });
        make(svg, 'text', { class: 'cap', x: x.to(at.delay_ms) + 12, y: y.to(at.residue_pct) - 8 }, `${hz} Hz`);
    };

    const place = () => {
        const set = trying?.curves ?? drawn.staged ?? drawn.now;
        const on = (points, percent) => {
            const i = Math.min(points.length - 2, Math.floor(percent / 2));
            const share = percent / 2 - i;
            return points[i][1] + (points[i + 1][1] - points[i][1]) * share;
        };
        for (const el of root.querySelectorAll('[data-live]')) {
            const value = live?.[el.dataset.live];
            el.toggleAttribute('hidden', value === undefined || !set);
            if (value === undefined || !set) continue;
            const percent = 100 * Math.abs(value);
            const [x, y, points] =
                el.dataset.live === 'throttle'
                    ? [scale(0, 100, 40, 270), scale(0, 100, 180, 22), set.throttle]
                    : [scale(0, 100, 52, 500), scale(0, Number(curves.dataset.top), 300, 22), set.feel[el.dataset.live]];
            el.setAttribute('cx', x.to(percent).toFixed(1));
            el.setAttribute('cy', y.to(on(points, percent)).toFixed(1));
        }
    };

    const draw = () => {
        drawCurves();
        drawThrottle();
        drawLowPass();
        const spot = document.getElementById('stage-problem');
        if (trying?.problem) {
            spot.textContent = trying.problem;
            spot.hidden = false;
        }
        if (focus && !pulled) document.getElementById(focus)?.focus();
    };
    draw();

    let timer;
    const tick = async () => {
        if (signal.aborted) return;
        if (!document.hidden) {
            try {
                live = (await getJson(root.dataset.sticks)).sticks;
                place();
            } catch {
                live = null;
            }
        }
        timer = setTimeout(tick, live ? LIVE_MS : 1000);
    };
    signal.addEventListener('abort', () => clearTimeout(timer));
    tick();
    document.addEventListener(
        'focusin',
        (e) => {
            if (!e.target.classList?.contains('handle')) focus = '';
        },
        { signal },
    );
    return () => {
        drawn = JSON.parse(root.dataset.drawn);
        if (!pulled) trying = null;
        draw();
    };
});
