// Sheet 41: while the sky is looked at, the receiver is listened to again and again.
import { attach } from '../_parts/attach.js';
import { post } from '../shell/http.js';
import { refreshPage } from '../shell/turbo.js';

const PAUSE_MS = 500;
const UNHEARD_MS = 2500;

attach('#location', (box, signal) => {
    let timer;
    const tick = async () => {
        if (signal.aborted) return;
        let pause = UNHEARD_MS;
        if (!document.hidden && box.dataset.listen) {
            try {
                const now = await post(box.dataset.listen);
                if (now.changed) {
                    pause = PAUSE_MS;
                    refreshPage();
                }
            } catch {
                // The shell says when the server does not answer.
            }
        }
        timer = setTimeout(tick, pause);
    };
    signal.addEventListener('abort', () => clearTimeout(timer));
    tick();
});

// While the craft is turned, what was shown is drawn as it comes.
attach('[data-job-kind="turn_compass"]', (box, signal) => {
    const timer = setInterval(refreshPage, 1200);
    signal.addEventListener('abort', () => clearInterval(timer));
});
