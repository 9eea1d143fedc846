// Forms work without scripts. With them a problem is shown at the form it belongs to, and what is chosen is sent at once.
import { StreamActions } from '@hotwired/turbo';
import { attach } from '../_parts/attach.js';
import { say } from './said.js';
import { isSwitch, submitting, visit } from './turbo.js';

let sent = null;

// What stood in each field when its form was sent: what was typed since is not sent yet.
const stood = new WeakMap();

// A form that has meanwhile gone from the page is not the event's target any more.
const formOf = (e) => e.detail.formSubmission.formElement;

document.addEventListener('turbo:submit-start', (e) => {
    sent = formOf(e);
    for (const field of sent.elements) stood.set(field, field.value);
    for (const one of document.querySelectorAll('.problem')) one.hidden = true;
    for (const field of document.querySelectorAll('[aria-invalid]')) field.removeAttribute('aria-invalid');
});

document.addEventListener('turbo:submit-end', (e) => {
    if (e.detail.success) {
        for (const field of formOf(e).elements) field.toggleAttribute('data-sent', stood.get(field) === field.value);
    } else if (e.detail.error) say('The server does not answer. Nothing was changed.', true);
});

// A refusal keeps what was typed, names the field and goes there.
StreamActions.problem = function () {
    const words = this.templateContent.textContent.trim();
    const name = this.getAttribute('field') ?? '';
    const form = sent?.isConnected ? sent : null;
    const spot = form?.querySelector('.problem') ?? (form?.dataset.problem ? document.getElementById(form.dataset.problem) : null);
    if (!spot) {
        say(words, true);
        return;
    }
    spot.textContent = words;
    spot.hidden = false;
    const field = form.elements[name] ?? form.elements[`values[${name}]`] ?? document.querySelector(`[data-setting="${CSS.escape(name)}"]`);
    const control = field instanceof RadioNodeList ? field[field.length - 1] : field;
    control?.setAttribute?.('aria-invalid', 'true');
    if (!form.hasAttribute('data-at-once')) control?.focus?.();
};

document.addEventListener('input', (e) => {
    e.target.removeAttribute('data-sent');
    const spot = e.target.form?.querySelector('.problem');
    if (spot) spot.hidden = true;
});

const clean = (field) => {
    if (field.type === 'checkbox' || field.type === 'radio') return field.checked === field.defaultChecked;
    if (field.tagName === 'SELECT')
        return [...field.options].every((o) => o.selected === o.defaultSelected) || !field.querySelector('[selected]');
    return field.value === field.defaultValue;
};

// What is chosen is sent at once.
attach('select[data-submits]', (select, signal) => {
    select.addEventListener('change', () => select.form.requestSubmit(), { signal });
});

// Which tab it comes from: what another has staged is not what this one showed.
const tab = sessionStorage.getItem('tab') ?? `${Date.now()}-${Math.random()}`.slice(0, 40);
sessionStorage.setItem('tab', tab);
document.addEventListener('formdata', (e) => e.target.method === 'post' && e.formData.set('tab', tab), true);

// One after the other: a form that is sent while another is on its way would take its place, and the page that the one before leads
// to would take the next one's.
const waiting = [];
let leads = false;

export function send(form, submitter = null) {
    if (!submitting() && !leads) {
        if (!waiting.some((w) => w.form === form)) form.removeAttribute('data-waiting');
        form.requestSubmit(submitter);
    } else if (submitter || !waiting.some((w) => w.form === form)) {
        // What stands in it is kept by a page that is drawn anew meanwhile.
        form.setAttribute('data-waiting', '');
        waiting.push({ form, submitter, to: submitter?.value });
        flip(submitter);
    }
}

// A switch of the bench that is pressed again before the page has shown the first press goes back: it was pressed twice.
// Where presses of it wait still, the next one goes back from the last of them.
function flip(button) {
    if (!isSwitch(button)) return;
    const last = waiting.findLast((w) => w.submitter === button)?.to ?? button.value;
    button.value = last === '1' ? '0' : '1';
}
document.addEventListener('turbo:submit-start', (e) => flip(e.detail.formSubmission.submitter));
document.addEventListener('turbo:submit-end', (e) => {
    if (!e.detail.success) flip(e.detail.formSubmission.submitter);
});

// A button that is pressed meanwhile waits for its turn as well, so that quick hands lose nothing.
document.addEventListener(
    'submit',
    (e) => {
        if ((!submitting() && !leads) || e.target.method !== 'post' || e.target.closest('[data-turbo="false"]')) return;
        e.preventDefault();
        e.stopImmediatePropagation();
        send(e.target, e.submitter);
    },
    true,
);

// A link that is followed meanwhile waits as well: the page that the form leads to would take it back. What is refused is seen first.
let after = null;
document.addEventListener('turbo:click', (e) => {
    if (!submitting() && !leads) return;
    e.preventDefault();
    e.detail.originalEvent.preventDefault();
    after = e.detail.url;
});
document.addEventListener('turbo:submit-end', (e) => {
    if (!e.detail.success) after = null;
});

// A page that was drawn anew meanwhile may hold the same form as another element: one that goes to the same place with the same hidden
// fields, and has the button that was pressed.
const goesTo = (form) =>
    [form.getAttribute('action'), ...[...form.querySelectorAll('input[type="hidden"]')].map((f) => `${f.name}=${f.value}`)].join(' ');

const buttonOf = (form, pressed, to) =>
    [...form.elements].find(
        (b) =>
            b.matches('button') &&
            b.name === pressed.name &&
            b.getAttribute('formaction') === pressed.getAttribute('formaction') &&
            (pressed.id ? b.id === pressed.id : b.value === to),
    );

// What was chosen in the old form is chosen in the new one.
function chosenIn(twin, form) {
    for (const field of form.elements) {
        const ticked = field.matches('[type="checkbox"], [type="radio"]');
        const isSame = (f) => f.name === field.name && f.type === field.type && (!ticked || f.value === field.value);
        const other = field.name && [...twin.elements].find(isSame);
        if (!other || other.matches('button, [type="hidden"], [type="file"]')) continue;
        if (ticked) other.checked = field.checked;
        else other.value = field.value;
    }
}

// What is not there any more cannot be pressed; it is not lost in silence.
function again({ form, submitter, to }) {
    const isThere = (f) => goesTo(f) === goesTo(form) && (!submitter || buttonOf(f, submitter, to));
    const there = form.isConnected ? form : [...document.forms].find(isThere);
    const button = submitter && there && (submitter.isConnected ? submitter : buttonOf(there, submitter, to));
    if (!there || (submitter && !button)) {
        say('What you pressed last is not on this page any more: it was not done.', true);
        next();
        return;
    }
    if (there !== form) chosenIn(there, form);
    if (button) button.value = to;
    send(there, button);
}

function next() {
    leads = false;
    const one = waiting.shift();
    if (!one && after !== null) {
        const to = after;
        after = null;
        visit(to);
    }
    if (one) again(one);
}

document.addEventListener('turbo:submit-end', (e) => {
    leads = Boolean(e.detail.fetchResponse?.redirected);
    if (!leads) setTimeout(next);
});
for (const there of ['turbo:load', 'turbo:fetch-request-error']) document.addEventListener(there, () => setTimeout(next));

// Sent by each change: only what was changed, so that nothing else is touched.
attach('form[data-at-once]', (form, signal) => {
    // A field may stand outside its form.
    document.addEventListener(
        'change',
        (e) => {
            if (e.target.form === form) send(form);
        },
        { signal },
    );
    if (form.hasAttribute('data-only-changed')) {
        form.addEventListener(
            'formdata',
            (e) => {
                for (const field of form.elements) {
                    if (field.dataset.setting === undefined || !clean(field)) continue;
                    e.formData.delete(field.name);
                }
            },
            { signal },
        );
    }
    // Changed before the scripts had started.
    if ([...form.elements].some((f) => f.dataset.setting !== undefined && !clean(f))) send(form);
});

attach('[data-print]', (button, signal) => button.addEventListener('click', () => window.print(), { signal }));

const wanted = () => {
    document.getElementById('wanted')?.scrollIntoView({ block: 'center' });
    const name = new URLSearchParams(location.search).get('setting');
    const field = name && document.querySelector(`[data-setting="${CSS.escape(name)}"]`);
    if (!field) return;
    for (let box = field.closest('details'); box; box = box.parentElement.closest('details')) box.open = true;
    field.focus();
};
document.addEventListener('turbo:load', (e) => {
    if (wanted.at !== location.href) wanted(e);
    wanted.at = location.href;
});
