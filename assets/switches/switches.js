// Sheet 23: the column where each lever stands is marked as it moves; arrow keys walk through the table.
import { attach } from '../_parts/attach.js';
import { getJson } from '../shell/http.js';
import { refreshPage } from '../shell/turbo.js';

const EVERY_MS = 150;
const WALK = { ArrowLeft: [0, -1], ArrowRight: [0, 1], ArrowUp: [-1, 0], ArrowDown: [1, 0] };

// While levers are shown and there is no table yet, the page listens all the same.
attach('[data-listens-to]', (box, signal) => {
    const timer = setInterval(() => !document.hidden && getJson(box.dataset.listensTo).catch(() => {}), EVERY_MS);
    signal.addEventListener('abort', () => clearInterval(timer));
});

attach('#switch-table', (table, signal) => {
    let timer;
    let before = table.dataset.at;
    const show = (now) => {
        for (const cell of table.querySelectorAll('[data-column]')) {
            const [channel, position] = cell.dataset.column.split('.');
            cell.classList.toggle('here', String(now.at[channel]) === position);
        }
        for (const row of table.querySelectorAll('[data-action]')) row.classList.toggle('on-now', now.on.includes(row.dataset.action));
        const says = document.getElementById('switches-says');
        if (now.says && says.textContent.trim() !== now.says) says.textContent = now.says;
    };
    const tick = async () => {
        if (signal.aborted) return;
        if (!document.hidden) {
            try {
                const now = await getJson(table.dataset.url);
                show(now);
                const at = JSON.stringify(now.at);
                if (table.dataset.choosing === '1' && at !== before) refreshPage();
                before = at;
            } catch {
                // The shell says when the server does not answer.
            }
        }
        timer = setTimeout(tick, EVERY_MS);
    };
    signal.addEventListener('abort', () => clearTimeout(timer));
    tick();
    table.addEventListener(
        'keydown',
        (e) => {
            const way = WALK[e.key];
            const cell = e.target.closest('td, tbody th');
            if (!way || !cell || e.ctrlKey || e.altKey || e.metaKey) return;
            e.preventDefault();
            const rows = [...table.tBodies[0].rows];
            const row = rows[rows.indexOf(cell.parentElement) + way[0]];
            row?.cells[cell.cellIndex + way[1]]?.querySelector('button')?.focus();
        },
        { signal },
    );
});
