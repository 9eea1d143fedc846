// Noise maps: power over throttle or rotor speed and frequency, with ridges and where the notches sat;
// several logs side by side, and their differences. Bins without data are hatched. Only drawing and moving about.
import { ink } from './ink.js';
import { nice, sized, spread, stroked } from './canvas.js';
import { margin, said, WIDTH } from './margin.js';

const GAP = 14;
const rgb = (c) => {
    const m = /^#(..)(..)(..)$/.exec(c);
    return m ? m.slice(1).map((h) => parseInt(h, 16)) : [0, 0, 0];
};
const between = (a, b, f) => [0, 1, 2].map((k) => a[k] + f * (b[k] - a[k]));

export class NoiseMaps {
    constructor(canvas, read) {
        this.canvas = canvas;
        this.read = read;
        this.panels = [];
        this.zoom = null;
        this.drag = null;
        this.mouse();
    }

    // Each panel: {title, map, less, fullRpm, ridges, notches}; less is true of a difference. Beside the first stands its spectrum.
    show(panels, key, spectrum, axis) {
        Object.assign(this, { spectrum, axis });
        if (key !== this.key) this.zoom = null;
        this.key = key;
        this.panels = panels.map((p) => ({ ...p, cells: Uint8Array.from(atob(p.map.cells), (c) => c.charCodeAt(0)) }));
        for (const p of this.panels) p.rows = p.cells.length / Math.max(1, p.map.bins.length);
        this.topHz = Math.max(1, ...this.panels.map((p) => (p.rows - 1) * p.map.step_hz));
        this.draw();
    }

    get view() {
        return this.zoom ?? { x0: 0, x1: 100, f0: 0, f1: this.topHz };
    }

    places() {
        const w = this.canvas.clientWidth;
        const h = this.canvas.clientHeight;
        const maps = this.panels.filter((p) => !p.less);
        const less = this.panels.filter((p) => p.less);
        const high = less.length ? 0.53 * h : h;
        const beside = this.spectrum ? WIDTH : 0;
        const row = (panels, y, tall) =>
            panels.forEach((p, i) => {
                const wide = (w - beside) / panels.length;
                const lone = this.panels.length === 1;
                p.rect = {
                    left: beside + i * wide + 50,
                    top: y + (lone ? 8 : 24),
                    width: wide - 50 - (lone ? 134 : GAP + (p.less ? 62 : 0)),
                    height: tall - (lone ? 42 : 58),
                };
            });
        row(maps, 0, high);
        row(less, high, h - high);
        const { top, height } = this.panels[0].rect;
        this.margin = this.spectrum ? { left: 1, top, width: WIDTH - 4, height } : null;
    }

    draw() {
        const g = sized(this.canvas);
        // Nothing has come yet: who presses keys or points before it has is not told anything.
        if (!this.panels.length) return;
        this.places();
        for (const p of this.panels) this.panel(g, p);
        if (this.margin) {
            const v = this.view;
            const { top, height } = this.margin;
            const Y = (hz) => top + height - ((hz - v.f0) / (v.f1 - v.f0)) * height;
            margin(g, this.spectrum, this.axis, this.margin, Y, [v.f0, v.f1]);
        }
        if (this.drag?.moved) {
            const { x0, y0, x1, y1 } = this.drag;
            g.strokeStyle = ink('--accent');
            g.setLineDash([4, 3]);
            g.strokeRect(Math.min(x0, x1), Math.min(y0, y1), Math.abs(x1 - x0), Math.abs(y1 - y0));
            g.setLineDash([]);
        }
    }

    panel(g, p) {
        const { left, top, width, height } = p.rect;
        const v = this.view;
        const X = (pct) => left + ((pct - v.x0) / (v.x1 - v.x0)) * width;
        const Y = (hz) => top + height - ((hz - v.f0) / (v.f1 - v.f0)) * height;
        g.save();
        g.beginPath();
        g.rect(left, top, width, height);
        g.clip();
        // No data: hatched over the whole, then covered where there is some.
        g.strokeStyle = ink('--hairline');
        g.lineWidth = 1;
        for (let x = left - height; x < left + width; x += 8) {
            g.beginPath();
            g.moveTo(x, top + height);
            g.lineTo(x + height, top);
            g.stroke();
        }
        g.imageSmoothingEnabled = false;
        const picture = this.picture(p);
        const step = p.map.step_hz;
        g.drawImage(picture, X(0), Y((p.rows - 0.5) * step), X(50 * p.map.bin_pct) - X(0), Y(-0.5 * step) - Y((p.rows - 0.5) * step));
        const labels = [];
        if (p.less) this.signs(g, p, X, Y);
        const paper = ink('--sheet');
        for (const r of p.ridges ?? []) {
            const points = [
                [X(r.from_pct), Y(r.hz_at_zero + r.hz_per_pct * r.from_pct)],
                [X(r.to_pct), Y(r.hz_at_zero + r.hz_per_pct * r.to_pct)],
            ];
            stroked(g, points, ink('--accent'), paper, {
                width: 1.8,
                dash: r.kind === 'standing' ? [] : r.kind === 'climbing' ? [8, 3] : r.kind === 'own_swing' ? [10, 3, 2, 3] : [2, 4],
            });
            labels.push({ y: points[1][1] + 4, words: r.words });
        }
        for (const n of p.notches ?? []) {
            const at = Object.entries(n.hz).map(([bin, hz]) => [X((Number(bin) + 0.5) * p.map.bin_pct), hz]);
            stroked(
                g,
                at.map(([x, hz]) => [x, Y(hz[1])]),
                ink('--ink'),
                paper,
                { width: 1.4, dash: [1.5, 3] },
            );
            if (at.some(([, hz]) => hz[2] - hz[0] > 0.02 * (v.f1 - v.f0)))
                for (const k of [0, 2]) {
                    g.strokeStyle = ink('--ink');
                    g.lineWidth = 0.7;
                    g.beginPath();
                    at.forEach(([x, hz], i) => (i ? g.lineTo(x, Y(hz[k])) : g.moveTo(x, Y(hz[k]))));
                    g.stroke();
                }
            if (at.length) labels.push({ y: Y(at[at.length - 1][1][1]) + 4, words: n.words });
        }
        g.restore();
        g.strokeStyle = ink('--ink');
        g.lineWidth = 1;
        g.strokeRect(left, top, width, height);
        this.axes(g, p, X, Y);
        g.textAlign = 'left';
        if (this.panels.length === 1) {
            g.font = '12px "IBM Plex Sans Condensed", sans-serif';
            g.fillStyle = ink('--ink');
            for (const l of spread(
                labels.map((one) => ({ ...one, y: Math.max(top + 10, Math.min(top + height, one.y)) })),
                14,
                top + height,
            ))
                g.fillText(l.words, left + width + 7, l.y);
            g.font = '11px "IBM Plex Mono", monospace';
        } else {
            g.font = '600 13px "IBM Plex Sans Condensed", sans-serif';
            g.fillStyle = ink('--ink');
            g.fillText(p.title, left, top - 7);
            g.font = '11px "IBM Plex Mono", monospace';
            if (p.less) this.scale(g, p);
        }
    }

    // One pixel a cell, highest frequency at the top; stretched by the canvas.
    picture(p) {
        const shades = p.less ? null : [0, 1, 2, 3, 4, 5].map((i) => rgb(ink(`--map-${i}`)));
        const [quieter, paper, louder] = p.less ? ['--accent', '--sheet', '--caution'].map((n) => rgb(ink(n))) : [];
        const canvas = document.createElement('canvas');
        canvas.width = 50;
        canvas.height = p.rows;
        const g = canvas.getContext('2d');
        const image = g.createImageData(50, p.rows);
        p.map.bins.forEach((bin, b) => {
            for (let k = 0; k < p.rows; k++) {
                const value = p.cells[b * p.rows + k];
                let c;
                if (p.less) {
                    const d = (value - 128) / 127;
                    c = between(paper, d < 0 ? quieter : louder, Math.min(1, Math.abs(d)));
                } else {
                    const s = (value / 255) * 5;
                    const i = Math.min(4, Math.floor(s));
                    c = between(shades[i], shades[i + 1], s - i);
                }
                const at = 4 * ((p.rows - 1 - k) * 50 + bin);
                image.data.set([c[0], c[1], c[2], 255], at);
            }
        });
        g.putImageData(image, 0, 0);
        return canvas;
    }

    // Colour alone says nothing: where a difference is strong, its sign stands.
    signs(g, p, X, Y) {
        g.fillStyle = ink('--ink');
        g.textAlign = 'center';
        const b0 = Math.max(1, Math.round(22 / Math.max(1, X(p.map.bin_pct) - X(0))));
        const k0 = Math.max(1, Math.round(20 / Math.max(0.5, Math.abs(Y(p.map.step_hz) - Y(0)))));
        p.map.bins.forEach((bin, b) => {
            if (bin % b0) return;
            for (let k = Math.floor(k0 / 2); k < p.rows; k += k0) {
                let sum = 0;
                let n = 0;
                for (let j = k; j < Math.min(p.rows, k + k0); j++) {
                    sum += p.cells[b * p.rows + j] - 128;
                    n++;
                }
                const db = (sum / n / 127) * p.map.span_db;
                if (Math.abs(db) >= 4) g.fillText(db < 0 ? '−' : '+', X((bin + 0.5) * p.map.bin_pct), Y((k + k0 / 2) * p.map.step_hz) + 4);
            }
        });
    }

    scale(g, p) {
        const { left, top, width, height } = p.rect;
        const x = left + width + 10;
        const [quieter, paper, louder] = ['--accent', '--sheet', '--caution'].map((n) => rgb(ink(n)));
        for (let i = 0; i < height; i++) {
            const d = 1 - (2 * i) / height;
            g.fillStyle = `rgb(${between(paper, d < 0 ? quieter : louder, Math.abs(d))
                .map(Math.round)
                .join(',')})`;
            g.fillRect(x, top + i, 9, 1.5);
        }
        g.strokeStyle = ink('--ink-soft');
        g.strokeRect(x, top, 9, height);
        g.fillStyle = ink('--ink-soft');
        g.textAlign = 'left';
        g.fillText(`+${p.map.span_db.toFixed(0)}`, x + 13, top + 9);
        g.fillText('0 dB', x + 13, top + height / 2 + 4);
        g.fillText(`−${p.map.span_db.toFixed(0)}`, x + 13, top + height);
    }

    axes(g, p, X, Y) {
        const { left, top, width, height } = p.rect;
        const v = this.view;
        g.fillStyle = ink('--ink-soft');
        g.textAlign = 'center';
        const [full, unit] = p.fullRpm ? [p.fullRpm, ''] : [100, ' %'];
        const every = nice((((v.x1 - v.x0) / 100) * full) / (width > 500 ? 6 : 4));
        for (let q = Math.ceil(((v.x0 / 100) * full) / every) * every; q <= (v.x1 / 100) * full + 1e-6; q += every)
            g.fillText(
                p.fullRpm ? (q ? `${Math.round(q / 100) / 10}k` : '0') : `${q.toFixed(every < 1 ? 1 : 0)}${unit}`,
                X((q / full) * 100),
                top + height + 14,
            );
        // What a lone map is drawn against is chosen at its axis' own title, which stands there in the page.
        if (this.panels.length > 1) g.fillText(p.fullRpm ? 'rotor speed, rpm' : 'throttle', left + width / 2, top + height + 28);
        g.textAlign = 'right';
        const step = nice((v.f1 - v.f0) / (height > 260 ? 8 : 4));
        for (let f = Math.ceil(v.f0 / step) * step; f <= v.f1; f += step)
            g.fillText(`${f.toFixed(step < 1 ? 1 : 0)}`, left - 5, Math.max(top + 8, Y(f) + 4));
        g.save();
        g.translate(left - 40, top + height / 2);
        g.rotate(-Math.PI / 2);
        g.textAlign = 'center';
        g.fillText('Hz', 0, 0);
        g.restore();
    }

    at(e) {
        const box = this.canvas.getBoundingClientRect();
        const [x, y] = [e.clientX - box.left, e.clientY - box.top];
        const p = this.panels.find(({ rect: r }) => x >= r.left && x <= r.left + r.width && y >= r.top && y <= r.top + r.height);
        if (!p) return null;
        const v = this.view;
        return {
            p,
            x,
            y,
            pct: v.x0 + ((x - p.rect.left) / p.rect.width) * (v.x1 - v.x0),
            hz: v.f0 + ((p.rect.top + p.rect.height - y) / p.rect.height) * (v.f1 - v.f0),
        };
    }

    // What stands under the pointer in the margin.
    besides(e) {
        const box = this.canvas.getBoundingClientRect();
        const [x, y] = [e.clientX - box.left, e.clientY - box.top];
        const m = this.margin;
        if (!m || x < m.left || x > m.left + m.width || y < m.top || y > m.top + m.height) return '';
        const v = this.view;
        return said(this.spectrum, v.f0 + ((m.top + m.height - y) / m.height) * (v.f1 - v.f0));
    }

    say(pct, hz) {
        const name = (p) => (this.panels.length > 1 ? `${p.short ?? p.title} ` : '');
        const bin = Math.floor(pct / (this.panels[0]?.map.bin_pct ?? 2));
        const values = this.panels.map((p) => {
            const b = p.map.bins.indexOf(bin);
            const k = Math.round(hz / p.map.step_hz);
            if (b < 0 || k >= p.rows) return `${name(p)}no data`;
            const c = p.cells[b * p.rows + k];
            const db = p.less ? ((c - 128) / 127) * p.map.span_db : p.map.low_db + (c / 255) * (p.map.high_db - p.map.low_db);
            return `${name(p)}${p.less && db > 0 ? '+' : ''}${db.toFixed(p.less ? 1 : 0)}${this.panels.length > 1 ? '' : ' dB'}`;
        });
        const full = this.panels[0]?.fullRpm;
        this.read(`${full ? `${((pct / 100) * full).toFixed(0)} rpm` : `${pct.toFixed(0)} %`}  ${hz.toFixed(0)} Hz  ${values.join('  ')}`);
    }

    mouse() {
        const c = this.canvas;
        c.onpointerdown = (e) => {
            const at = this.at(e);
            if (!at || e.button) return;
            this.drag = { ...at, x0: at.x, y0: at.y, x1: at.x, y1: at.y };
            c.setPointerCapture(e.pointerId);
        };
        c.onpointermove = (e) => {
            const at = this.at(e);
            if (this.drag && at?.p === this.drag.p) {
                Object.assign(this.drag, {
                    x1: at.x,
                    y1: at.y,
                    pct1: at.pct,
                    hz1: at.hz,
                    moved: Math.abs(at.x - this.drag.x0) + Math.abs(at.y - this.drag.y0) > 8,
                });
                this.draw();
            }
            if (at) {
                this.cross = at;
                this.say(at.pct, at.hz);
            } else this.read(this.besides(e));
        };
        c.onpointerup = () => {
            const d = this.drag;
            this.drag = null;
            if (d?.moved) {
                const v = this.view;
                const wide = Math.abs(d.x1 - d.x0) > 12;
                const tall = Math.abs(d.y1 - d.y0) > 12;
                this.zoom = {
                    x0: wide ? Math.min(d.pct, d.pct1) : v.x0,
                    x1: wide ? Math.max(d.pct, d.pct1) : v.x1,
                    f0: tall ? Math.min(d.hz, d.hz1) : v.f0,
                    f1: tall ? Math.max(d.hz, d.hz1) : v.f1,
                };
            }
            this.draw();
        };
        c.ondblclick = () => {
            this.zoom = null;
            this.draw();
        };
        c.onkeydown = (e) => {
            if (!this.panels.length) return;
            const v = this.view;
            const span = v.f1 - v.f0;
            const to = (f0, f1) => {
                const s = Math.min(this.topHz, f1 - f0);
                const a = Math.max(0, Math.min(this.topHz - s, f0));
                this.zoom = { ...v, f0: a, f1: a + s };
                this.draw();
            };
            const walk = (dp, df) => {
                const at = this.cross ?? { pct: 50, hz: span / 4 };
                this.cross = { pct: Math.max(0, Math.min(99.9, at.pct + dp)), hz: Math.max(0, Math.min(this.topHz, at.hz + df)) };
                this.say(this.cross.pct, this.cross.hz);
            };
            const act = {
                '+': () => to(v.f0, v.f0 + span / 2),
                '=': () => to(v.f0, v.f0 + span / 2),
                '-': () => to(v.f0 - span / 2, v.f1 + span / 2),
                Home: () => {
                    this.zoom = null;
                    this.draw();
                },
                ArrowLeft: () => walk(-2, 0),
                ArrowRight: () => walk(2, 0),
                ArrowUp: () => (e.shiftKey ? to(v.f0 + span / 5, v.f1 + span / 5) : walk(0, span / 100)),
                ArrowDown: () => (e.shiftKey ? to(v.f0 - span / 5, v.f1 - span / 5) : walk(0, -span / 100)),
            }[e.key];
            if (act) {
                e.preventDefault();
                e.stopPropagation();
                act();
            }
        };
    }

    // What is drawn, as numbers: one row per bin and frequency.
    numbers() {
        const rows = [['log', this.panels[0]?.fullRpm ? 'rpm' : 'throttle_pct', 'hz', 'db']];
        for (const p of this.panels)
            p.map.bins.forEach((bin, b) => {
                for (let k = 0; k < p.rows; k++) {
                    const c = p.cells[b * p.rows + k];
                    rows.push([
                        `"${p.title}"`,
                        (((bin + 0.5) * p.map.bin_pct) / 100) * (p.fullRpm ?? 100),
                        (k * p.map.step_hz).toFixed(2),
                        (p.less ? ((c - 128) / 127) * p.map.span_db : p.map.low_db + (c / 255) * (p.map.high_db - p.map.low_db)).toFixed(2),
                    ]);
                }
            });
        return rows;
    }
}
