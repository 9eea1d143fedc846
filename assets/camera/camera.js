// Sheet 43: the camera is dragged to where it is to look, and the servo follows; channels are chosen on the band.
import { attach } from '../_parts/attach.js';
import { stage } from '../_parts/stage.js';
import { post } from '../shell/http.js';
import { refreshPage } from '../shell/turbo.js';

const TRY_MS = 120;
const WATCH_MS = 2000;
const REST_US = 500;
const FARTHEST_DEG = 110;
const within = (deg) => Math.max(-FARTHEST_DEG, Math.min(FARTHEST_DEG, deg));
const STEPS = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1, PageUp: 5, PageDown: -5 };

attach('#camera-side', (svg, signal) => {
    const handle = () => svg.querySelector('#tilt-handle');
    let held = false;
    let wanted = null;
    let last = null;
    let busy = false;
    const scale = () => (svg.dataset.scale ? JSON.parse(svg.dataset.scale) : null);
    const show = (deg) => {
        const { x, y, arc, middle, per } = scale();
        const far = arc + 40;
        const [px, py] = [x + far * Math.cos((deg * Math.PI) / 180), y - far * Math.sin((deg * Math.PI) / 180)];
        const us = Math.round(Math.max(REST_US, Math.min(2500, middle + per * deg)));
        handle().setAttribute('cx', px);
        handle().setAttribute('cy', py);
        handle().setAttribute('aria-valuenow', Math.round(deg));
        svg.querySelector('#asked path').setAttribute('d', `M${x} ${y}L${px} ${py}`);
        const says = svg.querySelector('#tilt-says');
        says.setAttribute('x', px + 16);
        says.setAttribute('y', py - 8);
        says.textContent = `${Math.round(deg)}° · ${us} µs`;
        document.getElementById('mark-us').value = us;
        wanted = us;
        last = deg;
        drive();
    };
    // The servo is told the newest, one at a time.
    const drive = async () => {
        if (busy || wanted === null || !svg.dataset.try) return;
        busy = true;
        const us = wanted;
        wanted = null;
        try {
            const now = await post(svg.dataset.try, { us });
            const seen = svg.querySelector('#seen');
            if (seen && now.deg !== null) {
                const { x, y } = scale();
                seen.setAttribute('transform', `rotate(${-now.deg} ${x} ${y})`);
                svg.querySelector('#seen-says').textContent =
                    `on the bench it is seen to point ${Math.round(now.deg)}°${now.buzzes ? ', and buzzes' : ''}`;
                seen.classList.toggle('buzzes', now.buzzes);
            }
        } catch {
            // The sheet says why it cannot be driven.
        }
        setTimeout(() => {
            busy = false;
            drive();
        }, TRY_MS);
    };
    svg.addEventListener(
        'pointerdown',
        (e) => {
            held = e.target.closest('.tilt-handle') !== null;
            if (held) {
                e.preventDefault();
                handle().focus();
            }
        },
        { signal },
    );
    window.addEventListener(
        'pointermove',
        (e) => {
            if (!held) return;
            const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(svg.getScreenCTM().inverse());
            const { x, y } = scale();
            show(within((Math.atan2(y - p.y, p.x - x) * 180) / Math.PI));
        },
        { signal },
    );
    window.addEventListener(
        'pointerup',
        () => {
            held = false;
        },
        { signal },
    );
    svg.addEventListener(
        'keydown',
        (e) => {
            if (!e.target.closest('.tilt-handle') || !STEPS[e.key]) return;
            e.preventDefault();
            show(within((last ?? Number(handle().getAttribute('aria-valuenow'))) + STEPS[e.key]));
        },
        { signal },
    );
    // Drawn anew, it points where it rests.
    return () => {
        last = null;
    };
});

attach('#band-plot', (svg, signal) => {
    const choose = (e) => {
        const channel = e.target.closest('.channel');
        if (!channel || (e.type === 'keydown' && e.key !== 'Enter' && e.key !== ' ')) return;
        e.preventDefault();
        stage({ 'video.mhz': channel.dataset.mhz });
    };
    svg.addEventListener('click', choose, { signal });
    svg.addEventListener('keydown', choose, { signal });
});

attach('#heat', (box, signal) => {
    const timer = setInterval(async () => {
        if (document.hidden || !box.dataset.watch) return;
        try {
            if ((await post(box.dataset.watch)).changed) refreshPage();
        } catch {
            // The shell says when the server does not answer.
        }
    }, WATCH_MS);
    signal.addEventListener('abort', () => clearInterval(timer));
});
