// Pages are carried by Turbo and refreshed in place: what is being typed, opened, drawn and looked at stays.
import * as Turbo from '@hotwired/turbo';

// Pages come faster than a bar could be read; without it nothing needs a style of its own.
Turbo.config.drive.progressBarDelay = 3_600_000;
Turbo.config.drive.linkPrefetching = false;

// Pressed once until it is answered; a switch of the bench can be moved back at once.
export const isSwitch = (button) => Boolean(button?.matches('.thing[data-thing]'));
const disable = (button, off) => {
    if (!isSwitch(button)) button.disabled = off;
};
Turbo.config.forms.submitter = { beforeSubmit: (button) => disable(button, true), afterSubmit: (button) => disable(button, false) };

export const visit = (address, options = {}) => Turbo.visit(address, options);

export const submitting = () => under.form > 0;

// What is under way goes before a refresh: it would take a click or a form away from under a person.
const under = { visit: false, form: 0, refresh: false };
let wanted = false;
// The page that comes is the answer to a form.
let answers = false;

// Draws the page anew, in place, as soon as nothing else is under way. Calls that come meanwhile become one.
export function refreshPage() {
    if (under.visit || under.form || under.refresh) {
        wanted = true;
        return;
    }
    under.refresh = true;
    wanted = false;
    Turbo.visit(location.href, { action: 'replace' });
}

function settled() {
    if (wanted) refreshPage();
}

document.addEventListener('turbo:visit', (e) => {
    if (e.detail.action === 'replace' && under.refresh) return;
    under.visit = true;
    under.refresh = false;
    // Another page is drawn anew in any case; but what a form is answered with may be older than what was wanted meanwhile.
    if (!answers) wanted = false;
});
document.addEventListener('turbo:load', () => {
    under.visit = false;
    under.refresh = false;
    settled();
});
document.addEventListener('turbo:submit-start', () => {
    under.form += 1;
    under.refresh = false;
});
document.addEventListener('turbo:submit-end', () => {
    under.form = Math.max(0, under.form - 1);
    answers = true;
    setTimeout(() => {
        answers = false;
        settled();
    });
});
document.addEventListener('turbo:fetch-request-error', () => {
    under.visit = false;
    under.refresh = false;
});

const typed = (el) => el.matches('input:not([type="checkbox"], [type="radio"], [type="hidden"], [type="file"]), textarea');

// Chosen by hand in a form that is sent by its button: kept, like what is typed, until it is sent.
const chosen = (el) => el.matches('select, input[type="checkbox"], input[type="radio"]') && el.hasAttribute('data-chosen');
document.addEventListener('change', ({ target }) => {
    if (target.matches('select, input') && !target.form?.hasAttribute('data-at-once')) target.setAttribute('data-chosen', '');
});

document.addEventListener('turbo:before-morph-element', (e) => {
    const { newElement } = e.detail;
    const el = e.target;
    if (!newElement) return;
    // Said of what was just refused: it stays until the next thing is sent, or what it stands beside is changed.
    if (el.matches('.problem') && !el.hidden && !newElement.textContent.trim()) e.preventDefault();
    // Drawn by a script: only what it is drawn from is new.
    if (el.hasAttribute('data-drawing')) {
        e.preventDefault();
        for (const { name, value } of newElement.attributes)
            if (name.startsWith('data-') && el.getAttribute(name) !== value) el.setAttribute(name, value);
    }
    // Its form waits for its turn.
    if (el.form?.hasAttribute?.('data-waiting')) e.preventDefault();
    if (chosen(el) && !el.hasAttribute('data-sent') && newElement.matches(el.tagName)) e.preventDefault();
    // Being typed, or typed and not yet sent.
    if (typed(el) && el.value !== el.defaultValue && !el.hasAttribute('data-sent')) {
        if (el === document.activeElement || !el.hasAttribute('data-setting')) e.preventDefault();
    }
});

document.addEventListener('turbo:before-morph-attribute', (e) => {
    const { attributeName } = e.detail;
    // Opened by hand, or moved by a script.
    if (['open', 'style', 'data-sent', 'data-waiting', 'data-chosen'].includes(attributeName)) e.preventDefault();
    if (attributeName === 'hidden' && e.target.hasAttribute('data-shown-by-script')) e.preventDefault();
    if (e.target.closest('.progress') && ['aria-valuenow', 'data-percent'].includes(attributeName)) e.preventDefault();
});

document.addEventListener('turbo:render', () => {
    const { theme } = document.body.dataset;
    const isOther = document.documentElement.dataset.theme !== theme;
    document.documentElement.dataset.theme = theme;
    // What is drawn by scripts has its colours from then.
    if (isOther) document.dispatchEvent(new Event('theme'));
    for (const el of document.querySelectorAll('[data-sent]')) for (const name of ['data-sent', 'data-chosen']) el.removeAttribute(name);
});
