// The curve of noise that is left against delay: each point a chain; a click stages it.
import { stage } from '../_parts/stage.js';
import { getJson } from '../shell/http.js';

const NS = 'http://www.w3.org/2000/svg';
const H = 172;
const EDGE = { left: 46, right: 14, top: 22, foot: 30 };

const make = (name, attributes, text = '') => {
    const el = document.createElementNS(NS, name);
    for (const [key, v] of Object.entries(attributes)) el.setAttribute(key, v);
    el.textContent = text;
    return el;
};

const ticks = (from, to) => [0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50, 100, 200].filter((t) => t >= from && t <= to);

export function curve(box, signal) {
    const load = async () => {
        const data = await getJson(box.dataset.url);
        if (!signal.aborted && data?.front?.length) draw(box, data);
        last = data;
    };
    let last = null;
    const fit = new ResizeObserver(() => last?.front?.length && draw(box, last));
    fit.observe(box);
    signal.addEventListener('abort', () => fit.disconnect());
    load();
    return load;
}

function draw(box, { front, knee, today, staged, partPct }) {
    const W = Math.max(280, box.clientWidth);
    const all = [...front, today, staged].filter(Boolean);
    const most = Math.max(...all.map((p) => p.delay_ms)) * 1.05 + 0.1;
    const [lo, hi] = [Math.min(...all.map((p) => p.residual_dps)) * 0.85, Math.max(...all.map((p) => p.residual_dps)) * 1.25];
    const x = (ms) => EDGE.left + (ms / most) * (W - EDGE.left - EDGE.right);
    const y = (dps) => H - EDGE.foot - (Math.log(dps / lo) / Math.log(hi / lo)) * (H - EDGE.foot - EDGE.top);
    const svg = make('svg', {
        viewBox: `0 0 ${W} ${H}`,
        class: 'trade-off',
        role: 'group',
        'aria-label': 'Noise that is left against delay',
    });
    for (let ms = 0; ms <= most; ms += most > 6 ? 2 : 1) {
        svg.append(make('path', { class: 'rule', d: `M${x(ms)} ${EDGE.top}V${H - EDGE.foot}` }));
        svg.append(make('text', { x: x(ms), y: H - EDGE.foot + 13, class: 'mid fig' }, String(ms)));
    }
    for (const dps of ticks(lo, hi)) {
        svg.append(make('path', { class: 'rule', d: `M${EDGE.left} ${y(dps)}H${W - EDGE.right}` }));
        svg.append(make('text', { x: EDGE.left - 6, y: y(dps) + 4, class: 'end fig' }, String(dps)));
    }
    svg.append(
        make(
            'text',
            { x: (EDGE.left + W - EDGE.right) / 2, y: H - 3, class: 'mid' },
            partPct ? `delay at 30 Hz, ms; the curve by ${partPct} % of the flight` : 'delay at 30 Hz, ms',
        ),
    );
    svg.append(
        make('text', { x: 12, y: (H - EDGE.foot) / 2, class: 'mid', transform: `rotate(-90 12 ${(H - EDGE.foot) / 2})` }, 'left, deg/s'),
    );
    svg.append(make('path', { class: 'front', d: 'M' + front.map((p) => `${x(p.delay_ms)} ${y(p.residual_dps)}`).join('L') }));
    const named = (p, name, kind, up) => {
        if (!p) return;
        // To the side where no end of the curve has its own words.
        const right = x(front[front.length - 1].delay_ms) - x(p.delay_ms) > 300 || x(p.delay_ms) < 200;
        const at = { x: x(p.delay_ms) + (right ? 10 : -10), y: y(p.residual_dps) + up, class: `${kind} ${right ? '' : 'end'}` };
        svg.append(make('text', at, `${name} ${p.residual_dps.toFixed(2)} deg/s, ${p.delay_ms.toFixed(2)} ms`));
        svg.append(make('circle', { class: kind, cx: x(p.delay_ms), cy: y(p.residual_dps), r: 6 }));
    };
    const last = front[front.length - 1];
    const end = (p, at, kind) =>
        svg.append(make('text', { ...at, class: kind }, `${p.residual_dps.toFixed(2)} deg/s, ${p.delay_ms.toFixed(2)} ms`));
    // Above its point, where the curve does not go.
    end(front[0], { x: x(front[0].delay_ms), y: y(front[0].residual_dps) - 8 }, '');
    end(last, { x: x(last.delay_ms) + 4, y: y(last.residual_dps) - 8 }, 'end');
    const near = (p) =>
        today && Math.abs(x(today.delay_ms) - x(p.delay_ms)) < 200 && Math.abs(y(today.residual_dps) - y(p.residual_dps)) < 24;
    // Out of the way of the words at either end.
    named(today, 'today', 'today', near(front[0]) ? 4 : near(last) ? -26 : -12);
    named(staged, 'staged', 'staged', 16);
    front.forEach((p, i) => svg.append(point(p, i, i === knee, x, y)));
    const says = make('text', { x: W - EDGE.right, y: 11, class: 'end says' }, words(front[knee ?? 0], knee === null ? '' : 'knee: '));
    svg.append(says);
    for (const e of ['pointerover', 'focusin'])
        svg.addEventListener(e, ({ target }) => {
            const p = front[target.dataset?.of];
            if (p) says.textContent = words(p);
        });
    svg.addEventListener('click', ({ target }) => take(front[target.dataset?.of]));
    svg.addEventListener('keydown', (e) => {
        if (e.key !== 'Enter' && e.key !== ' ') return;
        e.preventDefault();
        take(front[e.target.dataset?.of]);
    });
    box.replaceChildren(svg);
}

const words = (p, before = '') => `${before}${p.residual_dps.toFixed(2)} deg/s, ${p.delay_ms.toFixed(2)} ms: ${p.words}`;

function point(p, index, isKnee, x, y) {
    const i = isKnee ? 5 : 3.2;
    const dot = isKnee
        ? make('path', { d: `M${x(p.delay_ms)} ${y(p.residual_dps) - i}l${i} ${i}l${-i} ${i}l${-i} ${-i}z` })
        : make('circle', { cx: x(p.delay_ms), cy: y(p.residual_dps), r: i });
    dot.dataset.of = index;
    dot.setAttribute('class', `candidate ${isKnee ? 'knee' : ''}`);
    dot.append(make('title', {}, words(p)));
    const can = Object.keys(p.stage).length > 0;
    dot.setAttribute('tabindex', '0');
    dot.setAttribute('role', can ? 'button' : 'img');
    dot.setAttribute('aria-label', `${can ? 'Stage ' : ''}${words(p)}`);
    return dot;
}

const take = (p) => p && Object.keys(p.stage).length && stage(p.stage);
