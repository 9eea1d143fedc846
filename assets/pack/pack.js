// Sheet 33: warning and flight end are dragged up and down on the discharge; let go, they are staged.
import { attach } from '../_parts/attach.js';
import { stage } from '../_parts/stage.js';
import '../_parts/svgplot.js';

const STEP = 0.01;

attach('#discharge', (svg, signal) => {
    const scale = JSON.parse(svg.dataset.scale);
    const ranges = JSON.parse(svg.dataset.ranges);
    const volts = (y) => scale.low + ((scale.foot - y) / (scale.foot - scale.top)) * (scale.high - scale.low);
    const held = (handle, v) => {
        const { low, high } = ranges[handle.dataset.name];
        return Number(Math.max(low, Math.min(high, v)).toFixed(2));
    };
    let pulled = null;
    svg.addEventListener(
        'pointerdown',
        (e) => {
            pulled = e.target.closest('.handle');
            if (pulled) e.preventDefault();
        },
        { signal },
    );
    window.addEventListener(
        'pointermove',
        (e) => {
            if (!pulled) return;
            const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(svg.getScreenCTM().inverse());
            pulled.last = held(pulled, volts(p.y));
            const y = Math.max(scale.top, Math.min(scale.foot, p.y));
            pulled.setAttribute('cy', y);
            pulled.parentElement.querySelector('path').setAttribute('d', `M52 ${y}H846`);
            pulled.parentElement.querySelector('tspan').textContent = `${pulled.last.toFixed(2)} V`;
        },
        { signal },
    );
    window.addEventListener(
        'pointerup',
        () => {
            if (pulled?.last) stage({ [pulled.dataset.name]: pulled.last });
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
            stage({ [handle.dataset.name]: held(handle, Number(handle.getAttribute('aria-valuenow')) + way * STEP) });
        },
        { signal },
    );
});
