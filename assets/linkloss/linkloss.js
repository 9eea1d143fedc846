// Sheet 32: boundaries of the plan are dragged along the axis of time, and the throttle up and down; let go, they are staged.
import { attach } from '../_parts/attach.js';
import { stage } from '../_parts/stage.js';
import '../_parts/svgplot.js';

attach('#loss-plan', (svg, signal) => {
    const scale = JSON.parse(svg.dataset.scale);
    const ranges = JSON.parse(svg.dataset.ranges);
    const seconds = (x) => scale.from * (scale.to / scale.from) ** ((x - scale.left) / (scale.right - scale.left));
    const percent = (y) => (100 * (scale.foot - y)) / (scale.foot - scale.top);
    const held = (handle, value) => {
        const { low, high, step } = ranges[handle.dataset.name];
        return Number(Math.max(low, Math.min(high, Math.round(value / step) * step)).toFixed(3));
    };
    const at = (e) => new DOMPoint(e.clientX, e.clientY).matrixTransform(svg.getScreenCTM().inverse());
    const valueAt = (handle, p) =>
        held(
            handle,
            handle.dataset.way === 'time'
                ? (seconds(p.x) - Number(handle.dataset.after ?? 0)) * Number(handle.dataset.unit)
                : percent(p.y) * Number(handle.dataset.unit),
        );
    let pulled = null;
    svg.addEventListener(
        'pointerdown',
        (e) => {
            const handle = e.target.closest('.handle');
            if (!handle) return;
            e.preventDefault();
            pulled = handle;
        },
        { signal },
    );
    window.addEventListener(
        'pointermove',
        (e) => {
            if (!pulled) return;
            const p = at(e);
            const label = pulled.parentElement.querySelector('text');
            if (pulled.dataset.way === 'time') {
                pulled.setAttribute('cx', Math.max(scale.left, Math.min(scale.right, p.x)));
                pulled.parentElement.querySelector('path').setAttribute('d', `M${pulled.getAttribute('cx')} 46V246`);
                label.setAttribute('x', pulled.getAttribute('cx'));
                label.textContent = `${(valueAt(pulled, p) / Number(pulled.dataset.unit)).toFixed(1)} s`;
            } else {
                pulled.setAttribute('cy', Math.max(scale.top, Math.min(scale.foot, p.y)));
                label.setAttribute('y', pulled.getAttribute('cy') - 8);
                label.textContent = `${valueAt(pulled, p).toFixed(1)} %`;
            }
            pulled.last = p;
        },
        { signal },
    );
    window.addEventListener(
        'pointerup',
        () => {
            if (pulled?.last) stage({ [pulled.dataset.name]: valueAt(pulled, pulled.last) });
            pulled = null;
        },
        { signal },
    );
    svg.addEventListener(
        'keydown',
        (e) => {
            const handle = e.target.closest('.handle');
            const way = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1, PageUp: 10, PageDown: -10 }[e.key];
            if (!handle || !way) return;
            e.preventDefault();
            const { step } = ranges[handle.dataset.name];
            const now = Number(handle.getAttribute('aria-valuenow')) * Number(handle.dataset.unit);
            stage({ [handle.dataset.name]: held(handle, now + way * step) });
        },
        { signal },
    );
});
