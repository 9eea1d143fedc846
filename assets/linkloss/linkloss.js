// Sheet 32: boundaries of the plan are dragged along the axis of time, and the throttle up and down; let go, they are staged.
import { attach } from '../_parts/attach.js';
import { handles } from '../_parts/handles.js';
import '../_parts/svgplot.js';

attach('#loss-plan', (svg, signal) => {
    const scale = JSON.parse(svg.dataset.scale);
    const ranges = JSON.parse(svg.dataset.ranges);
    const seconds = (x) => scale.from * (scale.to / scale.from) ** ((x - scale.left) / (scale.right - scale.left));
    const percent = (y) => (100 * (scale.foot - y)) / (scale.foot - scale.top);
    const unit = (handle) => Number(handle.dataset.unit);
    handles(svg, signal, {
        valueAt: (handle, p) =>
            unit(handle) * (handle.dataset.way === 'time' ? seconds(p.x) - Number(handle.dataset.after ?? 0) : percent(p.y)),
        held: (handle, value) => {
            const { low, high, step } = ranges[handle.dataset.name];
            return Number(Math.max(low, Math.min(high, Math.round(value / step) * step)).toFixed(3));
        },
        moved: (handle, p, value) => {
            const label = handle.parentElement.querySelector('text');
            if (handle.dataset.way === 'time') {
                const x = Math.max(scale.left, Math.min(scale.right, p.x));
                handle.setAttribute('cx', x);
                handle.parentElement.querySelector('path').setAttribute('d', `M${x} 46V246`);
                label.setAttribute('x', x);
                label.textContent = `${(value / unit(handle)).toFixed(1)} s`;
            } else {
                const y = Math.max(scale.top, Math.min(scale.foot, p.y));
                handle.setAttribute('cy', y);
                label.setAttribute('y', y - 8);
                label.textContent = `${value.toFixed(1)} %`;
            }
        },
        now: (handle) => Number(handle.getAttribute('aria-valuenow')) * unit(handle),
        step: (handle) => ranges[handle.dataset.name].step,
    });
});
