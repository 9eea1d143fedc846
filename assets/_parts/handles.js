// Handles on a drawing, pulled by the pointer or pushed by keys; let go, what they stand for is staged.
import { stage } from './stage.js';

const WAYS = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1, PageUp: 10, PageDown: -10 };

// valueAt(handle, point) in the setting's own unit; held(handle, value) within what is allowed; moved(handle, point, value) draws it
// meanwhile; now(handle) and step(handle) are for the keys.
export function handles(svg, signal, { valueAt, held, moved, now, step }) {
    let pulled = null;
    let last = null;
    svg.addEventListener(
        'pointerdown',
        (e) => {
            pulled = e.target.closest('.handle');
            last = null;
            if (pulled) e.preventDefault();
        },
        { signal },
    );
    window.addEventListener(
        'pointermove',
        (e) => {
            if (!pulled) return;
            const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(svg.getScreenCTM().inverse());
            last = held(pulled, valueAt(pulled, p));
            moved(pulled, p, last);
        },
        { signal },
    );
    window.addEventListener(
        'pointerup',
        () => {
            if (pulled && last !== null) stage({ [pulled.dataset.name]: last });
            pulled = last = null;
        },
        { signal },
    );
    svg.addEventListener(
        'keydown',
        (e) => {
            const handle = e.target.closest('.handle');
            if (!handle || !WAYS[e.key]) return;
            e.preventDefault();
            stage({ [handle.dataset.name]: held(handle, now(handle) + WAYS[e.key] * step(handle)) });
        },
        { signal },
    );
}
