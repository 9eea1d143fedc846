// Sheet 12: the flash drawn page by page, and files from disk.
import { attach } from '../_parts/attach.js';
import { sized } from '../_parts/canvas.js';
import { ink } from '../_parts/ink.js';
import { post, upload } from '../shell/http.js';
import { visit } from '../shell/turbo.js';

attach('#flash-map', (map, signal) => {
    let share = 0;
    let phase = '';
    const draw = () => drawMap(map, share, phase);
    draw();
    document.addEventListener('theme', draw, { signal });
    const fit = new ResizeObserver(draw);
    fit.observe(map);
    signal.addEventListener('abort', () => fit.disconnect());
    const show = ({ detail: { now } }) => {
        const job = now.jobs.find((j) => j.kind === 'flash' && j.open);
        if (!job) {
            if (phase) [share, phase] = [0, ''];
            return;
        }
        share = job.step.of ? job.step.done / job.step.of : job.progress > 0.9 ? 1 : 0;
        phase = job.step.phase ?? phase;
        map.querySelector('[data-flash-words]').textContent = job.doing;
        draw();
    };
    document.addEventListener('live', show, { signal });
    return draw;
});

attach('[data-hex]', (input, signal) => {
    const take = async () => {
        const problem = document.getElementById('hex-problem');
        problem.hidden = true;
        if (!input.files.length) return;
        try {
            const id = await upload(input.files[0], () => {});
            const { image } = await post(input.dataset.hex, { upload: id });
            const address = new URL(location.href);
            address.searchParams.set('image', image);
            visit(address.href);
        } catch (error) {
            problem.textContent = `${input.files[0].name}: ${error.message}`;
            problem.hidden = false;
            input.value = '';
        }
    };
    input.addEventListener('change', take, { signal });
});

function drawMap(map, share, phase) {
    const canvas = map.querySelector('canvas');
    const [pages, first, count] = ['pages', 'first', 'count'].map((key) => Number(map.dataset[key]));
    const width = map.clientWidth;
    const height = canvas.clientHeight || 150;
    const g = sized(canvas, width, height);
    const columns = Math.ceil(Math.sqrt((pages * width) / height));
    const [w, h] = [width / columns, height / Math.ceil(pages / columns)];
    const active = phase !== '';
    const covered = active && !count ? Math.round(pages * 0.32) : count;
    for (let p = 0; p < pages; p++) {
        const inside = p >= first && p < first + covered;
        const done = inside && active && p < first + share * covered;
        const waiting = active && phase === 'verify' ? '--accent' : '--accent-wash';
        g.fillStyle = ink(done ? (phase === 'verify' ? '--good' : '--accent') : inside ? waiting : '--fill');
        const [x, y] = [(p % columns) * w, Math.floor(p / columns) * h];
        g.fillRect(x + 0.5, y + 0.5, w - 1, h - 1);
        if (!inside || active) continue;
        g.strokeStyle = ink(map.dataset.outside === '1' ? '--stop' : '--accent');
        g.lineWidth = 0.6;
        g.strokeRect(x + 1, y + 1, w - 2, h - 2);
    }
}
