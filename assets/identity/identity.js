// Sheet 11: the live attitude, drawn.
import { attach } from '../_parts/attach.js';

attach('#attitude', (box, signal) => {
    const set = (key, text) => {
        const el = document.querySelector(`[data-live="${key}"]`);
        if (el) el.textContent = text;
    };
    const show = ({
        detail: {
            now: { link, bench },
        },
    }) => {
        const a = link.attitude;
        box.classList.toggle('silent', !a);
        const [roll, pitch] = a ?? [0, 0];
        box.querySelector('[data-turn="roll"]').setAttribute('transform', `rotate(${roll})`);
        box.querySelector('[data-turn="pitch"]').setAttribute('transform', `rotate(${-pitch})`);
        box.querySelector('[data-angle="roll"]').textContent = a ? `roll ${roll.toFixed(1)}°` : 'roll –';
        box.querySelector('[data-angle="pitch"]').textContent = a ? `pitch ${pitch.toFixed(1)}°` : 'pitch –';
        const up = link.uptime_s;
        const long = () => `${Math.floor(up / 60)} min ${Math.floor(up % 60)} s`;
        set('uptime', up === null ? '–' : up < 60 ? `${up.toFixed(1)} s` : long());
        set('load', link.load_pct === null ? '–' : `${link.load_pct.toFixed(0)} %`);
        set('battery', link.battery_v === null ? '–' : bench.pack ? `${link.battery_v.toFixed(2)} V` : 'pack off');
    };
    document.addEventListener('live', show, { signal });
});
