// The transmitter of the bench: sticks are dragged or pushed by keys; what springs back springs back when it is let go.
import { attach } from '../_parts/attach.js';
import { post } from '../shell/http.js';
import { say } from '../shell/said.js';

const REACH = 44;
const MIDDLE = 104;
const EVERY_MS = 45;
const STEP = 0.1;
const MOST_WAITING = 24;
const BESIDE = 0.05;
const KEYS = { ArrowLeft: ['x', -1], ArrowRight: ['x', 1], ArrowUp: ['y', 1], ArrowDown: ['y', -1] };
// Up on the drawing is away from the pilot: nose down.
const UP = { throttle: 1, pitch: -1 };

// Whether the second lies on the straight way from the first to the third.
function lies(a, b, c) {
    const names = Object.keys(b);
    if (![a, c].every((one) => names.length === Object.keys(one).length && names.every((name) => name in one))) return false;
    const sum = (f) => names.reduce((all, name) => all + f(name), 0);
    const far = sum((n) => (c[n] - a[n]) ** 2);
    const along = far > 0 ? sum((n) => (b[n] - a[n]) * (c[n] - a[n])) / far : 0;
    return along >= 0 && along <= 1 && sum((n) => (b[n] - a[n] - along * (c[n] - a[n])) ** 2) < BESIDE ** 2;
}

attach('#tiller', (panel, signal) => {
    let held = null;
    // What is still to be told, in its order; and what was told last.
    const waiting = [];
    let told = null;
    let busy = false;
    let last = 0;
    const at = JSON.parse(panel.dataset.controls);

    const draw = () => {
        for (const g of panel.querySelectorAll('.gimbal')) {
            const x = Number(g.dataset.at) + REACH * at[g.dataset.x];
            const y = MIDDLE - REACH * at[g.dataset.y] * UP[g.dataset.y];
            g.querySelector('.knob').setAttribute('cx', x.toFixed(1));
            g.querySelector('.knob').setAttribute('cy', y.toFixed(1));
            g.querySelector('.shaft').setAttribute('d', `M${g.dataset.at} ${MIDDLE}L${x.toFixed(1)} ${y.toFixed(1)}`);
        }
    };
    // One message at a time; a hand is told at most some twenty times a second.
    const flush = async () => {
        panel.setAttribute('aria-busy', String(busy || waiting.length > 0));
        if (busy || !waiting.length) return;
        const wait = last + EVERY_MS - Date.now();
        if (wait > 0) {
            setTimeout(flush, wait);
            return;
        }
        busy = true;
        last = Date.now();
        told = waiting.shift();
        const to = Object.entries(told).map(([name, v]) => `${name}=${v.toFixed(3)}`);
        try {
            await post(panel.dataset.move, { thing: 'radio:sticks', to: to.join(',') });
        } catch (error) {
            say(error.message, true);
        }
        busy = false;
        flush();
    };
    const tell = (values) => {
        Object.assign(at, values);
        draw();
        // However slow the answer: the ends that it reached are told, what lies on the straight way between two is not.
        const before = waiting.at(-2) ?? told;
        if (waiting.length && before && lies(before, waiting.at(-1), values)) waiting.pop();
        waiting.push(values);
        if (waiting.length > MOST_WAITING) waiting.shift();
        flush();
    };
    const letGo = (g) => {
        held = null;
        g.classList.remove('held');
        const back = { [g.dataset.x]: 0 };
        if (g.dataset.y !== 'throttle') back[g.dataset.y] = 0;
        tell(back);
    };
    draw();

    for (const g of panel.querySelectorAll('.gimbal')) {
        const move = (e) => {
            const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(g.ownerSVGElement.getScreenCTM().inverse());
            const clip = (v) => Math.max(-1, Math.min(1, v));
            tell({
                [g.dataset.x]: clip((p.x - Number(g.dataset.at)) / REACH),
                [g.dataset.y]: clip((MIDDLE - p.y) / REACH) * UP[g.dataset.y],
            });
        };
        g.addEventListener(
            'pointerdown',
            (e) => {
                e.preventDefault();
                g.focus();
                g.setPointerCapture(e.pointerId);
                held = g;
                g.classList.add('held');
                move(e);
            },
            { signal },
        );
        g.addEventListener('pointermove', (e) => held === g && move(e), { signal });
        for (const ends of ['pointerup', 'pointercancel']) g.addEventListener(ends, () => held === g && letGo(g), { signal });
        g.addEventListener(
            'keydown',
            (e) => {
                const key = KEYS[e.key];
                if (!key || e.ctrlKey || e.altKey || e.metaKey) return;
                e.preventDefault();
                e.stopPropagation();
                const [axis, way] = key;
                const name = g.dataset[axis];
                const to = way * (axis === 'y' ? UP[name] : 1);
                held = g;
                tell({ [name]: e.shiftKey ? to : Math.max(-1, Math.min(1, at[name] + to * STEP)) });
            },
            { signal },
        );
        g.addEventListener('keyup', (e) => KEYS[e.key] && letGo(g), { signal });
        g.addEventListener('blur', () => held === g && letGo(g), { signal });
    }
    document.addEventListener(
        'live',
        ({
            detail: {
                now: { bench: b },
            },
        }) => {
            if (!held && !waiting.length && !busy) Object.assign(at, b.controls);
            draw();
            const t = b.told;
            const set = (what, words) => {
                const el = panel.querySelector(`[data-told=${what}]`);
                if (el.textContent.trim() !== words) el.textContent = words;
            };
            set('battery', t?.battery ? `${t.battery[0].toFixed(1)} V` : '– V');
            set('position', t?.position ? `${t.position[3]} satellites` : 'no place told');
            set('attitude', t?.attitude ? `roll ${t.attitude[0].toFixed(0)}°, pitch ${t.attitude[1].toFixed(0)}°` : 'no attitude told');
        },
        { signal },
    );
    return () => {
        if (!held && !waiting.length && !busy) Object.assign(at, JSON.parse(panel.dataset.controls));
        draw();
    };
});
