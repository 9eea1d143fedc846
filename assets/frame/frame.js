// Sheet 14: draws the live attitude in projection, and moves the arms of a custom frame.
import { attach } from '../_parts/attach.js';
import { stage } from '../_parts/stage.js';

// Thrust arrows are shown for one command at a time.
attach('.axis-pick:has([name="command"])', (pick, signal) => {
    const show = () => {
        const command = pick.querySelector(':checked').value;
        for (const g of document.querySelectorAll('#frame-drawing [data-command]'))
            g.toggleAttribute('hidden', g.dataset.command !== command);
    };
    pick.addEventListener('change', show, { signal });
    show();
    return show;
});

const BY_KEY = { ArrowLeft: [-5, 0], ArrowRight: [5, 0], ArrowUp: [0, -5], ArrowDown: [0, 5] };

attach('#frame-drawing [data-arm]', (arm, signal) => {
    const drawing = arm.ownerSVGElement;
    const circle = arm.querySelector('circle');
    const at = () => [Number(circle.getAttribute('cx')), Number(circle.getAttribute('cy'))];
    const put = (x, y) => {
        const mm = Number(drawing.dataset.scale);
        const name = `arm.${arm.dataset.arm}`;
        stage({ [`${name}.forward_mm`]: Math.round(-y * mm), [`${name}.right_mm`]: Math.round(x * mm) });
    };
    arm.addEventListener(
        'pointerdown',
        (e) => {
            e.preventDefault();
            arm.focus();
            const matrix = drawing.getScreenCTM().inverse();
            const pulled = new AbortController();
            window.addEventListener(
                'pointermove',
                (m) => {
                    const p = new DOMPoint(m.clientX, m.clientY).matrixTransform(matrix);
                    circle.setAttribute('cx', p.x.toFixed(1));
                    circle.setAttribute('cy', p.y.toFixed(1));
                },
                { signal: pulled.signal },
            );
            window.addEventListener(
                'pointerup',
                () => {
                    pulled.abort();
                    put(...at());
                },
                { signal: pulled.signal },
            );
        },
        { signal },
    );
    arm.addEventListener(
        'keydown',
        (e) => {
            const by = BY_KEY[e.key];
            if (!by && e.key !== 'Delete') return;
            e.preventDefault();
            const mm = Number(drawing.dataset.scale);
            const [x, y] = at();
            if (by) put(x + by[0] / mm, y + by[1] / mm);
            else put(0, 0);
        },
        { signal },
    );
});

// The craft by its real geometry, turned as the board says, seen from behind and above.
attach('#attitude-3d', (svg, signal) => {
    const body = document.getElementById('attitude-body');
    const says = document.getElementById('attitude-says');
    let [roll, pitch] = [0, 0];
    const show = () => {
        const motors = JSON.parse(svg.dataset.motors);
        const reach = Math.max(...motors.map(([x, y]) => Math.hypot(x, y)), 0.01);
        body.innerHTML = projected(motors, reach, roll, pitch);
    };
    show();
    document.addEventListener(
        'live',
        ({ detail: { now } }) => {
            const a = now.link.attitude;
            if (a) [roll, pitch] = a;
            show();
            says.textContent = a ? `roll ${a[0].toFixed(1)}°, pitch ${a[1].toFixed(1)}°` : 'the board does not answer';
            svg.classList.toggle('silent', !a);
        },
        { signal },
    );
    return show;
});

function projected(motors, reach, rollDeg, pitchDeg) {
    const [r, p, view] = [rollDeg, pitchDeg, 24].map((d) => (d * Math.PI) / 180);
    // Body x forward, y right, z down; roll about x, then pitch about y; then looked at from behind, a little from above.
    const project = ([x, y, z]) => {
        const y1 = y * Math.cos(r) - z * Math.sin(r);
        const z1 = y * Math.sin(r) + z * Math.cos(r);
        const x2 = x * Math.cos(p) + z1 * Math.sin(p);
        const z2 = -x * Math.sin(p) + z1 * Math.cos(p);
        return [y1, z2 * Math.cos(view) - x2 * Math.sin(view)];
    };
    const k = 82 / reach;
    const at = (v) =>
        project(v)
            .map((c) => (c * k).toFixed(1))
            .join(' ');
    const ring = ([x, y]) =>
        Array.from({ length: 25 }, (_, i) => {
            const a = (i / 24) * 2 * Math.PI;
            return `${i ? 'L' : 'M'}${at([x + 0.34 * reach * Math.cos(a), y + 0.34 * reach * Math.sin(a), -0.06 * reach])}`;
        }).join('');
    const b = 0.2 * reach;
    const arms = motors.map(([x, y]) => {
        const [end, top] = [at([x, y, 0]), at([x, y, -0.06 * reach])];
        const post = `<path class="motor-side" d="M${end}L${top}"/>`;
        return `<path class="arm" d="M${at([0, 0, 0])}L${end}"/>${post}<path class="ring" d="${ring([x, y])}"/>`;
    });
    const corners = [
        [b, -b],
        [b, b],
        [-b, b],
        [-b, -b],
    ]
        .map(([x, y]) => at([x, y, 0]))
        .join('L');
    return `${arms.join('')}<path class="hull" d="M${corners}Z"/><path class="board-nose" d="M${at([0, 0, 0])}L${at([2.2 * b, 0, 0])}"/>`;
}
