// Sheet 33: warning and flight end are dragged up and down on the discharge; let go, they are staged.
import { attach } from '../_parts/attach.js';
import { handles } from '../_parts/handles.js';
import '../_parts/svgplot.js';

attach('#discharge', (svg, signal) => {
    const scale = JSON.parse(svg.dataset.scale);
    const ranges = JSON.parse(svg.dataset.ranges);
    handles(svg, signal, {
        valueAt: (handle, p) => scale.low + ((scale.foot - p.y) / (scale.foot - scale.top)) * (scale.high - scale.low),
        held: (handle, volts) => {
            const { low, high } = ranges[handle.dataset.name];
            return Number(Math.max(low, Math.min(high, volts)).toFixed(2));
        },
        moved: (handle, p, volts) => {
            const y = Math.max(scale.top, Math.min(scale.foot, p.y));
            handle.setAttribute('cy', y);
            handle.parentElement.querySelector('path').setAttribute('d', `M52 ${y}H846`);
            handle.parentElement.querySelector('tspan').textContent = `${volts.toFixed(2)} V`;
        },
        now: (handle) => Number(handle.getAttribute('aria-valuenow')),
        step: () => 0.01,
    });
});
