// Sheet 42: cells are pointed at or walked to, what stands there is dragged or pushed, and the scene leans as the craft does.
import { attach } from '../_parts/attach.js';
import { pictured, save } from '../_parts/svgplot.js';
import { send } from '../shell/forms.js';
import { getJson } from '../shell/http.js';
import { refreshPage } from '../shell/turbo.js';

const NS = 'http://www.w3.org/2000/svg';
const EVERY_MS = 600;
const WAYS = { ArrowUp: [0, -1], ArrowDown: [0, 1], ArrowLeft: [-1, 0], ArrowRight: [1, 0] };
const DEG_PER_ROW = 4;

// By the form that does it without scripts, filled.
function put(fields) {
    const from = document.getElementById('put');
    const form = from.cloneNode(false);
    form.removeAttribute('id');
    form.hidden = true;
    for (const [name, value] of Object.entries({ layout: from.elements.layout.value, ...fields }))
        form.append(Object.assign(document.createElement('input'), { type: 'hidden', name, value }));
    document.body.append(form);
    form.addEventListener('turbo:submit-end', (e) => {
        form.remove();
        // What was refused goes back to where it stood, and the words stay.
        if (!e.detail.success) for (const item of document.querySelectorAll('#picture .item')) item.removeAttribute('transform');
    });
    send(form);
}

function letters(item, rows) {
    const cell = [Number(item.dataset.c), Number(item.dataset.r)];
    const box = item.querySelector('.letters');
    const wanted = rows.join('\n');
    if (box.dataset.shown === wanted) return;
    box.dataset.shown = wanted;
    box.replaceChildren(
        ...rows.flatMap((row, r) =>
            [...row].flatMap((letter, c) => {
                if (letter === ' ') return [];
                const use = document.createElementNS(NS, 'use');
                use.setAttribute('href', `#g${letter.charCodeAt(0)}`);
                use.setAttribute('x', 12 * (cell[0] + c));
                use.setAttribute('y', 18 * (cell[1] + r));
                return [use];
            }),
        ),
    );
}

function lean(svg, roll, pitch) {
    const scene = svg.querySelector('#scene');
    const [x, y] = scene.dataset.middle.split(' ').map(Number);
    const down = (pitch / DEG_PER_ROW) * 18;
    scene.setAttribute('transform', `rotate(${-roll} ${x} ${y}) translate(0 ${down})`);
}

attach('#picture', (svg, signal) => {
    const cursor = () => svg.querySelector('#cursor');
    const at = { column: Number(svg.dataset.column), row: Number(svg.dataset.row) };
    const most = () => ({ column: Number(svg.dataset.columns) - 1, row: Number(svg.dataset.rows) - 1 });
    const point = (column, row) => {
        at.column = Math.max(0, Math.min(most().column, column));
        at.row = Math.max(0, Math.min(most().row, row));
        cursor().setAttribute('x', 12 * at.column);
        cursor().setAttribute('y', 18 * at.row);
        document.getElementById('put-column').value = at.column;
        document.getElementById('put-row').value = at.row;
    };
    const cellOf = (e) => {
        const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(svg.getScreenCTM().inverse());
        return [Math.floor(p.x / 12), Math.floor(p.y / 18)];
    };
    let drag = null;
    svg.addEventListener(
        'pointerdown',
        (e) => {
            const item = e.target.closest('.item');
            const [column, row] = cellOf(e);
            if (!item) {
                point(column, row);
                return;
            }
            drag = { item, from: [column, row], by: [0, 0] };
            item.focus();
            e.preventDefault();
        },
        { signal },
    );
    svg.addEventListener(
        'click',
        (e) => {
            if (!e.target.closest('.item')) document.getElementById('put-item').focus();
        },
        { signal },
    );
    window.addEventListener(
        'pointermove',
        (e) => {
            if (!drag) return;
            const [column, row] = cellOf(e);
            drag.by = [column - drag.from[0], row - drag.from[1]];
            drag.item.setAttribute('transform', `translate(${12 * drag.by[0]} ${18 * drag.by[1]})`);
        },
        { signal },
    );
    window.addEventListener(
        'pointerup',
        () => {
            if (!drag) return;
            const { item, by } = drag;
            drag = null;
            if (by[0] || by[1]) move(item, by);
        },
        { signal },
    );
    const move = (item, [dc, dr]) => {
        const { c, r, wide, high } = item.dataset;
        const column = Math.max(0, Math.min(most().column + 1 - Number(wide), Number(c) + dc));
        const row = Math.max(0, Math.min(most().row + 1 - Number(high), Number(r) + dr));
        put({ item: item.dataset.item, column, row });
    };
    svg.addEventListener(
        'keydown',
        (e) => {
            const item = e.target.closest('.item');
            const way = WAYS[e.key];
            if (way && item) move(item, way);
            else if (way) point(at.column + way[0], at.row + way[1]);
            else if ((e.key === 'Delete' || e.key === 'Backspace') && item) put({ item: item.dataset.item, away: 1 });
            else if (e.key === 'Enter' && !item) document.getElementById('put-item').focus();
            else return;
            e.preventDefault();
        },
        { signal },
    );
    let timer;
    const began = performance.now();
    const tick = async () => {
        if (signal.aborted) return;
        if (!document.hidden && !drag) {
            try {
                if (svg.dataset.live === '1') {
                    const now = await getJson(svg.dataset.now);
                    if (now.anew || !now.live) refreshPage();
                    for (const [name, rows] of Object.entries(now.rows)) {
                        const item = svg.querySelector(`#item-${name}`);
                        if (item && !drag) letters(item, rows);
                    }
                    lean(svg, now.roll, now.pitch);
                }
            } catch {
                // The shell says when the server does not answer.
            }
        }
        timer = setTimeout(tick, EVERY_MS);
    };
    // Without a craft the scene sways as in a slow flight.
    let frame;
    const sway = () => {
        if (signal.aborted) return;
        const t = (performance.now() - began) / 1000;
        if (svg.dataset.live !== '1' && !matchMedia('(prefers-reduced-motion: reduce)').matches)
            lean(svg, 6 * Math.sin(t / 2.3), -3 + 2 * Math.sin(t / 3.1));
        frame = setTimeout(() => requestAnimationFrame(sway), 80);
    };
    signal.addEventListener('abort', () => {
        clearTimeout(timer);
        clearTimeout(frame);
    });
    tick();
    sway();
    return () => point(at.column, at.row);
});

attach('[data-picture]', (button, signal) => {
    button.addEventListener(
        'click',
        () => {
            const svg = document.getElementById('picture');
            const name = `overlay-${document.body.dataset.craft}`;
            const text = pictured(svg, ['cells', 'cursor']);
            if (button.dataset.picture === 'svg') return void save(`${name}.svg`, 'image/svg+xml', text);
            const image = new Image();
            image.onload = () => {
                const canvas = document.createElement('canvas');
                const box = svg.getBoundingClientRect();
                canvas.width = 1280;
                canvas.height = Math.round((1280 * box.height) / box.width);
                canvas.getContext('2d').drawImage(image, 0, 0, canvas.width, canvas.height);
                canvas.toBlob((blob) => save(`${name}.png`, 'image/png', blob));
            };
            image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(text)}`;
        },
        { signal },
    );
});
