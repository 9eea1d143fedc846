// Bootstrap's dialog and tooltip: what lies over the page, and the words that a thing is explained by.
import Modal from 'bootstrap/js/dist/modal';
import Tooltip from 'bootstrap/js/dist/tooltip';
import { attach } from '../_parts/attach.js';

export const show = (box) => Modal.getOrCreateInstance(box).show();
export function hide(box) {
    // What is typed next is not for a field that is no longer seen.
    if (box.contains(document.activeElement)) document.activeElement.blur();
    Modal.getInstance(box)?.hide();
}

// A page that comes must not lie under the curtain of the one that went.
document.addEventListener('turbo:visit', () => {
    for (const box of document.querySelectorAll('.modal.show')) hide(box);
});

// The words are taken out of title, which the browser would show as well, each time the page was drawn anew.
attach('[title]:not(svg *), [data-tip]', (el, signal) => {
    const take = () => {
        if (!el.title) return;
        el.dataset.tip = el.title;
        el.removeAttribute('title');
    };
    take();
    const tip = new Tooltip(el, {
        title: () => el.dataset.tip ?? '',
        trigger: 'hover focus',
        container: 'body',
        delay: { show: 250, hide: 0 },
    });
    signal.addEventListener('abort', () => tip.dispose());
    return take;
});
