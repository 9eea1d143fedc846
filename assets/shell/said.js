// What is said at the foot of the page, for a while.
import { attach } from '../_parts/attach.js';

let timer;

export function say(words, bad = false) {
    const box = document.getElementById('said');
    box.textContent = words;
    box.classList.toggle('bad', bad);
    box.hidden = false;
    clearTimeout(timer);
    timer = setTimeout(() => (box.hidden = true), bad ? 9000 : 5000);
}

attach('#said', (box) => {
    const shown = () => {
        if (box.dataset.said && box.dataset.said !== '') say(box.dataset.said);
        box.dataset.said = '';
    };
    shown();
    return shown;
});
