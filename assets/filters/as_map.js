// Sheet 62: the same noise over throttle, behind the filters as they are and as staged, and how these differ.
import { attach } from '../_parts/attach.js';
import { NoiseMaps } from '../_parts/map.js';
import { onPick, picked, reader } from '../_parts/plot.js';
import { getJson } from '../shell/http.js';

attach('#filters-map', (canvas, signal) => {
    const read = reader();
    const box = document.getElementById('filters-plot');
    const as = document.getElementById('filters-as-map');
    const maps = new NoiseMaps(canvas, read);
    const panel = (title, map, less = false) => ({ title, map, less, fullRpm: null, ridges: [], notches: [] });
    const draw = async () => {
        const on = as.checked;
        box.hidden = on;
        document.getElementById('filter-lanes').hidden = on;
        canvas.hidden = !on;
        if (!on) return;
        const axis = picked()[0] ?? 'roll';
        const join = canvas.dataset.url.includes('?') ? '&' : '?';
        const { now, staged, less } = await getJson(`${canvas.dataset.url}${join}axis=${axis}`);
        if (signal.aborted || !as.checked) return;
        canvas.dataset.panels = String([now, staged, less].filter(Boolean).length);
        if (!now) {
            read('This log has no throttle, so there is no map to draw.');
            return;
        }
        const panels = [panel(`${axis}, behind the filters`, now)];
        if (staged) panels.push(panel('as staged', staged), panel('as staged, minus now', less, true));
        maps.show(panels, axis + Boolean(staged), null, axis);
    };
    as.addEventListener('change', draw, { signal });
    onPick(draw, signal);
    document.addEventListener('theme', draw, { signal });
    return draw;
});
