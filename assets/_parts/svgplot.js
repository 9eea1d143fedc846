// A plot that the server drew: a crosshair that reads its curves, and its numbers and its picture to take away.
// svg[data-plot] says {x: [left, right, from, to, unit], y: [foot, top, low, high, unit]}; its curves are path[data-curve].
import { attach } from './attach.js';

const NS = 'http://www.w3.org/2000/svg';

const points = (path) =>
    path
        .getAttribute('d')
        .split(/[ML]/)
        .filter(Boolean)
        .map((p) => p.trim().split(/[ ,]+/).map(Number));

const value = ([a, b, from, to], p) => from + ((p - a) / (b - a)) * (to - from);

// Between the two points that lie around it; null beyond the ends.
function at(line, x) {
    for (let i = 1; i < line.length; ++i) {
        const [[x0, y0], [x1, y1]] = [line[i - 1], line[i]];
        if (x >= x0 && x <= x1) return x1 === x0 ? y1 : y0 + ((y1 - y0) * (x - x0)) / (x1 - x0);
    }
    return null;
}

export function save(name, type, text) {
    const link = document.createElement('a');
    link.href = URL.createObjectURL(new Blob([text], { type }));
    link.download = name;
    link.click();
    setTimeout(() => URL.revokeObjectURL(link.href), 1000);
}

const curves = (svg) => [...svg.querySelectorAll('path[data-curve]')];

function numbers(svg, { x, y }) {
    const rows = [`curve,x_${x[4].replaceAll('/', '_per_')},y_${y[4].replaceAll('/', '_per_')}`];
    for (const path of curves(svg))
        for (const [px, py] of points(path)) rows.push(`${path.dataset.curve},${value(x, px).toFixed(4)},${value(y, py).toFixed(4)}`);
    return rows.join('\n') + '\n';
}

// With the inks of the page written into it, so that it looks the same elsewhere.
// Parts of the classes that are named are left out.
export function pictured(svg, without = []) {
    const copy = svg.cloneNode(true);
    const [mine, its] = [
        [svg, ...svg.querySelectorAll('*')],
        [copy, ...copy.querySelectorAll('*')],
    ];
    mine.forEach((element, i) => {
        const style = getComputedStyle(element);
        for (const name of ['fill', 'stroke', 'stroke-width', 'stroke-dasharray', 'font', 'text-anchor', 'opacity'])
            its[i].style.setProperty(name, style.getPropertyValue(name));
    });
    for (const name of without) for (const part of copy.querySelectorAll(`.${name}`)) part.remove();
    const box = svg.getBoundingClientRect();
    copy.setAttribute('xmlns', NS);
    copy.setAttribute('width', Math.round(box.width));
    copy.setAttribute('height', Math.round(box.height));
    return new XMLSerializer().serializeToString(copy);
}

attach('svg[data-plot]', (svg, signal) => {
    const plot = () => JSON.parse(svg.dataset.plot);
    const clear = () => svg.querySelector('.crosshair')?.remove();
    const draw = (px) => {
        clear();
        const { x, y } = plot();
        if (px < Math.min(x[0], x[1]) || px > Math.max(x[0], x[1])) return;
        const says = curves(svg)
            .map((path) => [path.dataset.curve, at(points(path), px)])
            .filter(([, py]) => py !== null)
            .map(([name, py]) => `${name} ${value(y, py).toFixed(2)} ${y[4]}`);
        const g = document.createElementNS(NS, 'g');
        g.setAttribute('class', 'crosshair');
        const line = document.createElementNS(NS, 'path');
        line.setAttribute('d', `M${px} ${y[1]}V${y[0]}`);
        const text = document.createElementNS(NS, 'text');
        const right = px > (x[0] + x[1]) / 2;
        text.setAttribute('x', px + (right ? -6 : 6));
        text.setAttribute('y', y[1] + 12);
        text.setAttribute('class', right ? 'fig end' : 'fig');
        text.textContent = `${value(x, px).toFixed(2)} ${x[4]}: ${says.join(', ')}`;
        g.append(line, text);
        svg.append(g);
    };
    svg.addEventListener('pointermove', (e) => draw(new DOMPoint(e.clientX, e.clientY).matrixTransform(svg.getScreenCTM().inverse()).x), {
        signal,
    });
    svg.addEventListener('pointerleave', clear, { signal });
    for (const button of document.querySelectorAll(`[data-saves="${svg.id}"]`))
        button.addEventListener(
            'click',
            () => {
                clear();
                if (button.dataset.as === 'csv') save(`${svg.id}.csv`, 'text/csv', numbers(svg, plot()));
                else save(`${svg.id}.svg`, 'image/svg+xml', pictured(svg));
            },
            { signal },
        );
});
