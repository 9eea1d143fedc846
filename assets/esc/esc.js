// Sheet 16: what the row in hand does. Sheet 12: which ESC is being written.
import { attach } from '../_parts/attach.js';

attach('.escs-sheet', (sheet, signal) => {
    const tell = (e) => {
        const help = document.getElementById('esc-help');
        const words = help?.querySelector(`[data-help-for="${e.target.closest('[data-key]')?.dataset.key}"]`);
        if (!words) return;
        help.querySelector('h3').textContent = words.dataset.label;
        help.querySelector('[data-help]').textContent = words.content.textContent;
    };
    sheet.addEventListener('focusin', tell, { signal });
    sheet.addEventListener('pointerover', tell, { signal });
});

attach('.escs-there', (drawing, signal) => {
    const show = ({ detail: { now } }) => {
        const job = now.jobs.find((j) => j.kind === 'flash-escs' && j.open);
        for (const esc of drawing.querySelectorAll('[data-esc]')) esc.classList.toggle('busy', job?.step.place === esc.dataset.esc);
    };
    document.addEventListener('live', show, { signal });
});
