// A canvas sharp on any screen: sized to its box, drawn on in the page's own pixels.
export function sized(canvas, w = canvas.clientWidth, h = canvas.clientHeight) {
    const ratio = devicePixelRatio || 1;
    canvas.width = Math.max(1, Math.round(w * ratio));
    canvas.height = Math.max(1, Math.round(h * ratio));
    const g = canvas.getContext('2d');
    g.setTransform(ratio, 0, 0, ratio, 0, 0);
    g.font = '11px "IBM Plex Mono", monospace';
    return g;
}

// A line readable on any ground: once broad in the paper's colour, once in its own.
export function stroked(g, points, colour, paper, { width = 1.6, dash = [] } = {}) {
    for (const [c, w, d] of [
        [paper, width + 2.4, []],
        [colour, width, dash],
    ]) {
        g.strokeStyle = c;
        g.lineWidth = w;
        g.setLineDash(d);
        g.beginPath();
        points.forEach(([x, y], i) => (i ? g.lineTo(x, y) : g.moveTo(x, y)));
        g.stroke();
    }
    g.setLineDash([]);
}

// Places for labels beside each other, pushed down until none lies on another.
export function spread(labels, least, lowest) {
    const sorted = [...labels].sort((a, b) => a.y - b.y);
    sorted.forEach((l, i) => {
        if (i) l.y = Math.max(l.y, sorted[i - 1].y + least);
    });
    const over = sorted.length ? sorted[sorted.length - 1].y - lowest : 0;
    if (over > 0) for (const l of sorted) l.y -= over;
    return sorted;
}

// A round step for a scale: 1, 2 or 5 times a power of ten.
export function nice(rough) {
    const p = 10 ** Math.floor(Math.log10(Math.max(1e-12, rough)));
    const m = rough / p;
    return (m < 1.5 ? 1 : m < 3.5 ? 2 : m < 7.5 ? 5 : 10) * p;
}
