// One manner of plot for all sheets: uPlot with our ink, names at the lines' ends, a crosshair that reads values,
// zoom by drag and keys, back to full by double click, and export.
import uPlot from 'uplot';
import { offer } from './exports.js';
import { ink } from './ink.js';

export const AXES = ['roll', 'pitch', 'yaw'];

export function axis(label, extra = {}) {
    return {
        stroke: ink('--ink-soft'),
        grid: { stroke: ink('--hairline'), width: 1 },
        ticks: { stroke: ink('--hairline'), width: 1, size: 4 },
        font: '11px "IBM Plex Mono", monospace',
        labelFont: '12px "IBM Plex Sans Condensed", sans-serif',
        label,
        labelSize: 18,
        size: extra.side === 1 ? undefined : 46,
        ...extra,
    };
}

export function line(label, colour, extra = {}) {
    return { label, stroke: ink(colour), width: 1.6, points: { show: false }, ...extra };
}

// Names at the ends of the lines, pushed apart where they would lie on each other.
function endLabels(names) {
    return (u) => {
        const g = u.ctx;
        const ratio = devicePixelRatio || 1;
        const labels = [];
        u.series.forEach((s, i) => {
            const name = names(i);
            if (!i || !s.show || !name) return;
            const ys = u.data[i];
            let k = u.scales.x.max === null ? ys.length - 1 : Math.min(ys.length - 1, u.valToIdx(u.scales.x.max));
            while (k > 0 && (ys[k] === null || Number.isNaN(ys[k]))) k--;
            if (ys[k] === null) return;
            labels.push({
                y: Math.max(u.bbox.top + 8 * ratio, Math.min(u.bbox.top + u.bbox.height, u.valToPos(ys[k], s.scale ?? 'y', true))),
                name,
                colour: s.labelInk ?? s._stroke ?? s.stroke(u, i),
                dash: i > 1 ? s.dash : null,
            });
        });
        labels.sort((a, b) => a.y - b.y);
        for (let i = 1; i < labels.length; i++) labels[i].y = Math.max(labels[i].y, labels[i - 1].y + 15 * ratio);
        const over = labels.length ? labels[labels.length - 1].y - (u.bbox.top + u.bbox.height) : 0;
        if (over > 0) for (const l of labels) l.y -= over;
        g.save();
        g.font = `${12.5 * ratio}px "IBM Plex Sans Condensed", sans-serif`;
        g.textBaseline = 'middle';
        g.textAlign = 'left';
        for (const l of labels) {
            g.fillStyle = g.strokeStyle = l.colour;
            let x = u.bbox.left + u.bbox.width + 7 * ratio;
            // Lines of one colour are told apart by their dashes: a piece of each stands before its name.
            if (l.dash?.length) {
                g.lineWidth = 1.6 * ratio;
                g.setLineDash(l.dash.map((d) => d * ratio));
                g.beginPath();
                g.moveTo(x, l.y);
                g.lineTo(x + 20 * ratio, l.y);
                g.stroke();
                g.setLineDash([]);
                x += 25 * ratio;
            }
            g.fillText(l.name, x, l.y);
        }
        g.restore();
    };
}

export function plot(box, { series, data, x, y, bands, range, names, reading, right = 92, hooks = {}, xRange, xScale = {}, xAxis = {} }) {
    box.replaceChildren();
    const full = { min: data[0][0], max: data[0][data[0].length - 1] };
    const options = {
        width: box.clientWidth,
        height: Math.max(160, box.clientHeight),
        padding: [12, right, 0, 0],
        legend: { show: false },
        series: [{}, ...series],
        bands,
        scales: { x: { time: false, ...(xRange ? { range: xRange } : {}), ...xScale }, y: { range } },
        axes: [axis(x, { side: 2, size: 26, ...xAxis }), axis(y)],
        cursor: { drag: { x: true, y: false, setScale: true }, points: { size: 5 }, x: true, y: false },
        hooks: {
            ...hooks,
            draw: [endLabels((i) => names[i - 1]), ...(hooks.draw ?? [])],
            setCursor: [
                (u) => {
                    if (reading) reading(u.cursor.idx, u);
                },
            ],
        },
    };
    const u = new uPlot(options, data, box);
    const zoom = (factor, middle) => {
        const { min, max } = u.scales.x;
        const centre = middle ?? (min + max) / 2;
        const half = ((max - min) * factor) / 2;
        u.setScale('x', { min: Math.max(full.min, centre - half), max: Math.min(full.max, centre + half) });
    };
    const move = (share) => {
        const { min, max } = u.scales.x;
        const by = (max - min) * share;
        const s = Math.max(full.min - min, Math.min(full.max - max, by));
        u.setScale('x', { min: min + s, max: max + s });
    };
    box.onkeydown = (e) => {
        const idx = u.cursor.idx ?? Math.round(data[0].length / 2);
        const step = (d) => {
            const k = Math.max(0, Math.min(data[0].length - 1, idx + d));
            u.setCursor({ left: u.valToPos(data[0][k], 'x'), top: 20 });
        };
        const done = {
            '+': () => zoom(0.5),
            '=': () => zoom(0.5),
            '-': () => zoom(2),
            Home: () => u.setScale('x', full),
            ArrowLeft: () => (e.shiftKey ? move(-0.2) : step(-1)),
            ArrowRight: () => (e.shiftKey ? move(0.2) : step(1)),
        }[e.key];
        if (done) {
            e.preventDefault();
            e.stopPropagation();
            done();
        }
    };
    const fit = new ResizeObserver(() => u.setSize({ width: box.clientWidth, height: Math.max(160, box.clientHeight) }));
    fit.observe(box);
    u._stop = () => fit.disconnect();
    box._plot = u;
    return u;
}

export function pictureOf(canvases) {
    const canvas = document.createElement('canvas');
    canvas.width = canvases[0].width;
    canvas.height = canvases[0].height;
    const g = canvas.getContext('2d');
    g.fillStyle = ink('--sheet');
    g.fillRect(0, 0, canvas.width, canvas.height);
    for (const c of canvases) g.drawImage(c, 0, 0);
    return canvas.toDataURL('image/png');
}

export function exports(box, name, columns) {
    offer(box, {
        png: () => save(pictureOf([box._plot.ctx.canvas]), `${name}.png`),
        csv: () => {
            const { data } = box._plot;
            save(csvOf([columns(), ...Array.from(data[0], (_, i) => data.map((c) => c[i] ?? ''))]), `${name}.csv`);
        },
    });
}

// A text that begins like a formula is kept from being one where the table is opened; a figure stays what it is.
function cell(value) {
    const text = String(value ?? '');
    const safe = /^[=+\-@\t\r]/.test(text) && !Number.isFinite(Number(text)) ? `'${text}` : text;
    return /[",\n\r]/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe;
}

export const csvOf = (rows) => URL.createObjectURL(new Blob([rows.map((r) => r.map(cell).join(',')).join('\n')], { type: 'text/csv' }));

export function save(href, name) {
    const a = document.createElement('a');
    a.href = href;
    a.download = name;
    a.click();
}

export const reader = () => {
    const el = document.getElementById('reading');
    return (text) => {
        if (el) el.textContent = text;
    };
};
export const picked = () => [...document.querySelectorAll('.axis-pick input[name="axis"]:checked')].map((i) => i.value);
export const onPick = (act, signal) => document.querySelector('.axis-pick')?.addEventListener('change', act, { signal });

export const tint = (name) => `color-mix(in srgb, ${ink(name)} 18%, transparent)`;

// The logs that are drawn beside the one a sheet is about.
export const besides = () => [...document.querySelectorAll('#besides li')].map((li) => ({ ...li.dataset }));
