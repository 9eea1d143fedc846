// P against D: lines of equal modulus margin, with where the craft was flown, what is staged and what is proposed.
import { make } from './nyquist.js';

const LINES = [0.3, 0.4, 0.5, 0.6, 0.7];

export function map(box, data, loops, read) {
    if (!data) {
        box.textContent = 'The log says nothing about this axis; the column on the right says why.';
        return;
    }
    const [w, h] = [box.clientWidth, Math.max(160, box.clientHeight)];
    const [l, t, r, f] = [56, 22, w - 20, h - 38];
    const { p, d, modulus, peak } = data;
    const lx = Math.log(p[0]);
    const lw = Math.log(p[p.length - 1] / p[0]);
    const x = (v) => l + ((Math.log(v) - lx) / lw) * (r - l);
    const most = d[d.length - 1];
    const y = (v) => f - (v / most) * (f - t);
    const svg = make('svg', {
        viewBox: `0 0 ${w} ${h}`,
        width: w,
        height: h,
        class: 'gain-map',
        role: 'img',
        'aria-label': 'Modulus margin over P and D',
    });
    for (let j = 0; j + 1 < d.length; ++j)
        for (let i = 0; i + 1 < p.length; ++i) {
            const corner = [modulus[j][i], modulus[j][i + 1], modulus[j + 1][i + 1], modulus[j + 1][i]];
            const [x0, x1, y0, y1] = [x(p[i]), x(p[i + 1]), y(d[j]), y(d[j + 1])];
            if (Math.min(...corner) < LINES[0]) svg.append(make('path', { class: 'wild', d: `M${x0} ${y0}H${x1}V${y1}H${x0}z` }));
            for (const level of LINES) {
                const d_ = crossing(corner, level, [x0, x1, y0, y1]);
                if (d_) svg.append(make('path', { class: level === 0.5 ? 'level wanted' : 'level', d: d_ }));
            }
        }
    for (const level of LINES) {
        const at = lastOn(modulus, level, p, d);
        if (at) svg.append(make('text', { x: x(at[0]) + 3, y: y(at[1]) - 3, class: 'name' }, level.toFixed(1)));
    }
    svg.append(make('path', { class: 'frame', d: `M${l} ${t}V${f}H${r}` }));
    for (const v of p.filter((_, i) => i % 2 === 0)) {
        svg.append(make('text', { x: x(v), y: f + 14, class: 'mid fig' }, v.toFixed(0)));
    }
    for (const v of d.filter((_, j) => j % 2 === 0)) svg.append(make('text', { x: l - 6, y: y(v) + 4, class: 'end fig' }, v.toFixed(1)));
    svg.append(make('text', { x: (l + r) / 2, y: h - 6, class: 'mid' }, 'P, % per 100 deg/s'));
    svg.append(make('text', { x: 14, y: (t + f) / 2, class: 'mid', transform: `rotate(-90 14 ${(t + f) / 2})` }, 'D, % per 1000 deg/s²'));
    svg.append(make('text', { x: r, y: 13, class: 'end says' }, 'lines of equal modulus margin; hatched: it swings'));
    for (const [name, { gains }] of Object.entries(loops)) {
        const inside = gains.p >= p[0] && gains.p <= p[p.length - 1] && gains.d <= most;
        if (!inside) continue;
        svg.append(make('circle', { class: `spot ${name}`, cx: x(gains.p), cy: y(gains.d), r: 5 }));
        svg.append(make('text', { x: x(gains.p) + 9, y: y(gains.d) + (name === 'staged' ? 17 : 4), class: `spot ${name}` }, name));
    }
    svg.addEventListener('pointermove', (e) => {
        const b = svg.getBoundingClientRect();
        const i = nearest(p, Math.exp(lx + ((e.clientX - b.left - l) / (r - l)) * lw));
        const j = nearest(d, ((f - (e.clientY - b.top)) / (f - t)) * most);
        const says = peak[j][i] === null ? 'oscillates' : `modulus margin ${modulus[j][i].toFixed(2)}, peak ${peak[j][i].toFixed(2)}`;
        read(`P ${p[i].toFixed(1)}, D ${d[j].toFixed(1)}: ${says}`);
    });
    box.replaceChildren(svg);
}

const nearest = (values, v) => values.reduce((best, one, i) => (Math.abs(one - v) < Math.abs(values[best] - v) ? i : best), 0);

// Where a level runs through one cell: between the points at which it crosses the cell's edges.
function crossing([a, b, c, d], level, [x0, x1, y0, y1]) {
    const points = [];
    const on = (u, v, ux, uy, vx, vy) => {
        if (u < level !== v < level) {
            const k = (level - u) / (v - u);
            points.push([ux + k * (vx - ux), uy + k * (vy - uy)]);
        }
    };
    on(a, b, x0, y0, x1, y0);
    on(b, c, x1, y0, x1, y1);
    on(c, d, x1, y1, x0, y1);
    on(d, a, x0, y1, x0, y0);
    return points.length < 2 ? '' : `M${points[0].map((v) => v.toFixed(1)).join(' ')}L${points[1].map((v) => v.toFixed(1)).join(' ')}`;
}

function lastOn(modulus, level, p, d) {
    for (let j = d.length - 2; j > 0; --j)
        for (let i = 0; i + 1 < p.length; ++i) if (modulus[j][i] < level !== modulus[j][i + 1] < level) return [p[i], d[j]];
    return null;
}
