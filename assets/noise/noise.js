// Sheet 53: noise maps, and the power spectral density of measured behind filtered.
import { attach } from '../_parts/attach.js';
import { offer } from '../_parts/exports.js';
import { ink } from '../_parts/ink.js';
import { besides as listed, csvOf, exports, line, onPick, picked, pictureOf, plot, reader, save } from '../_parts/plot.js';
import { getJson } from '../shell/http.js';
import { NoiseMaps } from '../_parts/map.js';

const DASHES = [
    [2, 4],
    [9, 3, 2, 3],
];

attach('#noise-plot', (box, signal) => {
    const besides = listed();
    const read = reader();
    const canvas = document.getElementById('noise-map');
    const none = document.getElementById('no-map');
    const notches = document.getElementById('show-notches');
    const maps = new NoiseMaps(canvas, read);
    const against = document.getElementById('against');
    const wide = document.getElementById('wide');
    // Another log, or one beside it, is another page: what was wide stays wide.
    if (sessionStorage.getItem('spectrum') === 'wide') wide.setAttribute('aria-pressed', 'true');
    const view = () => (wide.getAttribute('aria-pressed') === 'true' ? 'spectrum' : against.value);
    let log = null;
    let others = [];
    const load = async () => {
        const [mine, ...rest] = await Promise.all([
            getJson(box.dataset.url),
            ...besides.map((b) => getJson(b.url)),
            ...besides.map((b) => getJson(b.less)),
        ]);
        log = mine;
        others = besides.map((b, i) => ({ name: b.name, ...rest[i], less: rest[besides.length + i] }));
        draw();
    };

    const panels = (kind, axis) => {
        const rpm = kind === 'rpm_map';
        const one = (name, of) => ({
            title: name,
            map: of.charts[kind][axis],
            fullRpm: rpm ? of.charts.full_rpm : null,
            ridges: rpm ? orders(of, axis) : ridges(of, axis),
            notches: notches.checked
                ? (of.charts.notches[rpm ? 'rpm' : 'throttle'] ?? []).map((n) => ({
                      ...n,
                      words:
                          n.kind === 'rotor'
                              ? 'rotor speed'
                              : n.kind === 'motor'
                                ? `motor notch ×${n.number}`
                                : `tracking notch ${n.number}`,
                  }))
                : [],
        });
        const list = [[box.dataset.name, log], ...others.map((o) => [o.name, o])]
            .filter(([, of]) => of.charts[kind]?.[axis])
            .map(([name, of]) => one(name, of));
        if (!log.charts[kind]?.[axis]) return [];
        for (const o of others)
            if (o.less[kind]?.[axis])
                list.push({
                    title: `${box.dataset.name} minus ${o.name}: − quieter, + louder`,
                    short: `minus ${o.name}`,
                    map: o.less[kind][axis],
                    fullRpm: rpm ? log.charts.full_rpm : null,
                    less: true,
                });
        return list;
    };

    const draw = () => {
        if (!log) return;
        const axis = picked()[0];
        const kind = view();
        const isMap = kind !== 'spectrum';
        const shown = isMap ? panels(kind, axis) : [];
        canvas.hidden = !isMap || !shown.length;
        none.hidden = !isMap || shown.length > 0;
        box.hidden = isMap;
        against.parentElement.hidden = !isMap;
        wide.textContent = isMap ? 'Spectrum wide' : 'Beside the map';
        if (isMap && !shown.length) {
            none.textContent =
                kind === 'rpm_map'
                    ? 'No rotor speed in this log. Switch rpm feedback on, on sheet 15, and fly again.'
                    : `No throttle and rate of ${axis} in this log, so there is no map to draw.`;
            return;
        }
        if (isMap) {
            maps.show(shown, kind + axis, log.charts.spectrum[axis], axis);
            offer(box, {
                png: () => save(pictureOf([canvas]), `${box.dataset.name}-${axis}-map.png`),
                csv: () => save(csvOf(maps.numbers()), `${box.dataset.name}-${axis}-map.csv`),
            });
            return;
        }
        spectrum(axis);
    };

    const spectrum = (axis) => {
        const s = log.charts.spectrum[axis];
        const bins = Math.max(s.measured_db.length, s.filtered_db.length);
        const x = Array.from({ length: bins }, (_, i) => i * s.step_hz);
        // Another log may have another rate: its bins are put on this one's by their frequency.
        const on = (values, step) =>
            x.map((hz) => {
                const k = hz / step;
                const i = Math.floor(k);
                return i + 1 < values.length ? values[i] + (k - i) * (values[i + 1] - values[i]) : null;
            });
        const series = [line('measured', '--measured'), line('filtered', `--${axis}`, { width: 2 })];
        const data = [
            x,
            s.measured_db.length ? s.measured_db : x.map(() => null),
            s.filtered_db.length ? s.filtered_db : x.map(() => null),
        ];
        const names = ['measured', 'filtered'];
        others.forEach((o, i) => {
            const there = o.charts.spectrum[axis];
            series.push(
                line(`measured ${o.name}`, '--measured', { dash: DASHES[i] }),
                line(`filtered ${o.name}`, `--${axis}`, { dash: DASHES[i] }),
            );
            data.push(on(there.measured_db, there.step_hz), on(there.filtered_db, there.step_hz));
            names.push('', `in ${o.name}`);
        });
        plot(box, {
            series,
            data,
            x: 'frequency, Hz',
            y: 'power density, dB of (deg/s)²/Hz',
            names,
            right: others.length ? 122 : 86,
            range: (u, lo, hi) => [Math.max(-70, Math.floor(lo / 10) * 10), Math.ceil((hi + 6) / 10) * 10],
            hooks: {
                draw: [
                    peaksOf(log.report.spectrum[axis].measured?.peaks ?? []),
                    ...(notches.checked ? [satAt(log.charts.notches.throttle ?? [])] : []),
                ],
            },
            reading: (i) => read(i == null ? '' : `${x[i].toFixed(1)} Hz  measured ${fmt(data[1][i])}  filtered ${fmt(data[2][i])} dB`),
        });
        exports(box, `${box.dataset.name}-${axis}-spectrum`, () => ['hz', ...series.map((q) => q.label.replaceAll(' ', '_') + '_db')]);
    };
    onPick(draw, signal);
    against.addEventListener('change', draw, { signal });
    wide.addEventListener(
        'click',
        () => {
            const isWide = wide.getAttribute('aria-pressed') !== 'true';
            wide.setAttribute('aria-pressed', String(isWide));
            sessionStorage.setItem('spectrum', isWide ? 'wide' : '');
            draw();
        },
        { signal },
    );
    const fit = new ResizeObserver(() => {
        if (!canvas.hidden) draw();
    });
    fit.observe(canvas.parentElement);
    signal.addEventListener('abort', () => fit.disconnect());
    document.addEventListener('theme', draw, { signal });
    load();
    return load;
});

const fmt = (v) => (v == null ? '–' : v.toFixed(1));
const ridges = (of, axis) =>
    of.report.noise.ridges
        .filter((r) => r.axis === axis)
        .map((r) => ({
            ...r,
            words:
                r.kind === 'standing'
                    ? `${r.hz.toFixed(0)} Hz standing`
                    : r.kind === 'climbing'
                      ? `climbing${r.harmonic ? ` ×${r.harmonic}` : ''}`
                      : r.kind === 'own_swing'
                        ? `${r.hz.toFixed(0)} Hz, the loop's own swing`
                        : `${r.hz.toFixed(0)} Hz, cannot tell`,
        }));
const orders = (of, axis) =>
    of.report.noise.orders
        .filter((o) => o.axis === axis)
        .map((o) => ({
            kind: 'climbing',
            from_pct: (100 * o.from_rpm) / of.charts.full_rpm,
            to_pct: (100 * o.to_rpm) / of.charts.full_rpm,
            hz_at_zero: 0,
            hz_per_pct: (o.order * of.charts.full_rpm) / 6000,
            words: `${o.order.toFixed(2)} a turn`,
        }));

// Under the spectrum, from where to where each notch went over the flight.
function satAt(tracks) {
    return (u) => {
        const g = u.ctx;
        const r = devicePixelRatio || 1;
        g.save();
        g.font = `${11 * r}px "IBM Plex Sans Condensed", sans-serif`;
        g.strokeStyle = ink('--ink');
        g.fillStyle = ink('--ink');
        g.textAlign = 'left';
        g.textBaseline = 'alphabetic';
        g.lineWidth = 1.4 * r;
        tracks.forEach((t, i) => {
            const all = Object.values(t.hz);
            const from = Math.max(u.bbox.left, u.valToPos(Math.min(...all.map((h) => h[0])), 'x', true));
            const to = Math.min(u.bbox.left + u.bbox.width, u.valToPos(Math.max(...all.map((h) => h[2])), 'x', true));
            if (to <= from) return;
            const y = u.bbox.top + u.bbox.height - (9 + 17 * i) * r;
            g.setLineDash([1.5 * r, 3 * r]);
            g.beginPath();
            g.moveTo(from, y);
            g.lineTo(to, y);
            g.stroke();
            g.setLineDash([]);
            g.beginPath();
            for (const x of [from, to]) {
                g.moveTo(x, y - 4 * r);
                g.lineTo(x, y + 4 * r);
            }
            g.stroke();
            g.fillText(
                t.kind === 'rotor' ? 'rotor speed' : `${t.kind} notch ${t.kind === 'motor' ? '×' : ''}${t.number}, over the flight`,
                from + 6 * r,
                y - 4 * r,
            );
        });
        g.restore();
    };
}

function peaksOf(peaks) {
    return (u) => {
        const g = u.ctx;
        const r = devicePixelRatio || 1;
        g.save();
        g.font = `${11 * r}px "IBM Plex Mono", monospace`;
        g.fillStyle = ink('--ink');
        g.strokeStyle = ink('--ink');
        g.textAlign = 'center';
        const taken = [];
        for (const p of peaks.slice(0, 5)) {
            if (p.hz < u.scales.x.min || p.hz > u.scales.x.max) continue;
            const px = u.valToPos(p.hz, 'x', true);
            if (taken.some((t) => Math.abs(t - px) < 56 * r)) continue;
            taken.push(px);
            const py = u.valToPos(p.db, 'y', true);
            g.beginPath();
            g.moveTo(px, py - 3 * r);
            g.lineTo(px, py - 12 * r);
            g.stroke();
            g.fillText(`${p.hz.toFixed(0)} Hz`, px, Math.max(u.bbox.top + 10 * r, py - 16 * r));
        }
        g.restore();
    };
}
