// How far long work is, kept up to date; the server draws what can be done about it.
import { progress } from '../_parts/progress.js';

document.addEventListener('live', ({ detail: { now } }) => {
    for (const job of now.jobs) {
        for (const box of document.querySelectorAll(`[data-job="${job.id}"]`)) {
            const doing = box.querySelector('[data-job-doing]');
            if (doing && job.open) doing.textContent = job.doing;
            const bar = box.querySelector('.progress');
            if (bar) progress(bar, job.progress);
        }
    }
});
