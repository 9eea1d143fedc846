// The map's margin along its frequency axis: the spectrum of the whole flight, measured behind filtered, power growing away from the
// map. It shares the map's frequency and its zoom.
import { ink } from './ink.js';

export const WIDTH = 104;
// A step of the power axis.
const STEP_DB = 20;

// spectrum: { step_hz, measured_db, filtered_db }; rect: where it stands; Y: frequency to the page; range: frequencies in view.
export function margin(g, spectrum, axis, rect, Y, range) {
    const lines = [
        [spectrum.measured_db, '--measured', 1, 'measured'],
        [spectrum.filtered_db, `--${axis}`, 1.6, 'filtered'],
    ].filter(([values]) => values.length);
    const [low, high] = limits(
        lines.map(([values]) => values),
        spectrum.step_hz,
        range,
    );
    const { left, top, width, height } = rect;
    const X = (db) => left + width - ((db - low) / (high - low)) * width;
    g.save();
    g.strokeStyle = ink('--hairline');
    g.fillStyle = ink('--ink-soft');
    g.textAlign = 'center';
    g.lineWidth = 1;
    for (let db = low; db <= high; db += STEP_DB) {
        g.beginPath();
        g.moveTo(X(db), top);
        g.lineTo(X(db), top + height);
        g.stroke();
        if (db > low && db < high && db % (2 * STEP_DB) === 0) g.fillText(String(db).replace('-', '−'), X(db), top + height + 14);
    }
    g.fillText('power, dB', left + width / 2, top + height + 28);
    g.beginPath();
    g.rect(left, top, width, height);
    g.clip();
    for (const [values, colour, thick] of lines) {
        g.strokeStyle = ink(colour);
        g.lineWidth = thick;
        g.beginPath();
        values.forEach((db, k) => (k ? g.lineTo(X(db), Y(k * spectrum.step_hz)) : g.moveTo(X(db), Y(0))));
        g.stroke();
    }
    g.restore();
    g.strokeStyle = ink('--ink-soft');
    g.strokeRect(left, top, width, height);
    g.save();
    g.textAlign = 'left';
    g.font = '12px "IBM Plex Sans Condensed", sans-serif';
    lines.forEach(([, colour, , name], i) => {
        g.fillStyle = ink(colour === '--measured' ? '--ink-soft' : colour);
        g.fillText(name, left + 4, top + 13 + 13 * i);
    });
    g.restore();
}

function limits(lines, step, [from, to]) {
    let low = Infinity;
    let high = -Infinity;
    for (const values of lines)
        values.forEach((db, k) => {
            if (db === null || k * step < Math.max(from, 4) || k * step > to) return;
            low = Math.min(low, db);
            high = Math.max(high, db);
        });
    if (!Number.isFinite(low)) return [-60, 20];
    return [Math.max(-80, Math.floor(low / STEP_DB) * STEP_DB), Math.ceil((high + 3) / STEP_DB) * STEP_DB];
}

export const said = (spectrum, hz) => {
    const at = (values) => {
        const db = values[Math.round(hz / spectrum.step_hz)];
        return db == null ? '–' : db.toFixed(0);
    };
    return `${hz.toFixed(0)} Hz  measured ${at(spectrum.measured_db)}  filtered ${at(spectrum.filtered_db)} dB`;
};
