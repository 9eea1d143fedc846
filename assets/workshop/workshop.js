// A choice in a form that only looks is drawn at once.
import { attach } from '../_parts/attach.js';

const TYPING_MS = 200;

attach('form[data-looks]', (form, signal) => {
    const look = () => {
        // A name is asked for when it is made, not when it is drawn.
        form.requestSubmit(form.querySelector('[data-look]'));
    };
    form.addEventListener(
        'change',
        ({ target }) => {
            if (target.name === 'frame') {
                // Arms belong to their frame.
                form.elements.diagonal_mm.value = target.selectedOptions[0].dataset.mm;
                form.elements.of_frame.value = target.value;
            }
            if (target.name !== 'name' && target.type !== 'search') look();
        },
        { signal },
    );
    let due = 0;
    form.addEventListener(
        'input',
        ({ target }) => {
            if (target.type !== 'search') return;
            clearTimeout(due);
            due = setTimeout(look, TYPING_MS);
        },
        { signal },
    );
});

attach('#shop-search', (box, signal) => {
    document.addEventListener('find', () => box.focus(), { signal });
});
