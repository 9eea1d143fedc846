// Sheet 31: the chain is looked at again and again, and drawn anew when a link opens or closes.
import { attach } from '../_parts/attach.js';
import { getJson } from '../shell/http.js';
import { refreshPage } from '../shell/turbo.js';

const EVERY_MS = 350;

attach('#chain', (chain, signal) => {
    let timer;
    const tick = async () => {
        if (signal.aborted) return;
        if (!document.hidden) {
            try {
                const now = await getJson(chain.dataset.url);
                if (now.mark !== chain.dataset.mark) refreshPage();
            } catch {
                // The shell says when the server does not answer.
            }
        }
        timer = setTimeout(tick, EVERY_MS);
    };
    signal.addEventListener('abort', () => clearTimeout(timer));
    tick();
});
