// One table of keys: what they do, and how ? tells of them.
import { tinykeys } from 'tinykeys';
import { attach } from '../_parts/attach.js';
import { show } from './modal.js';
import { say } from './said.js';
import { visit } from './turbo.js';

// Nothing is typed into a box that is ticked.
const typing = (el) =>
    el instanceof Element && (el.matches('input:not([type="checkbox"], [type="radio"]), textarea, select') || el.isContentEditable);
const free = (e) => !typing(e.target) && !document.querySelector('.modal.show');
const click = (selector) => document.querySelector(selector)?.click();
const find = (e) => {
    e.preventDefault();
    document.dispatchEvent(new CustomEvent('find'));
};

function tray(e) {
    const box = document.getElementById('tray');
    if (!box || box.hidden) return;
    // The tray takes the focus to its reason: without this the t would be typed there.
    e.preventDefault();
    box.open = !box.open;
    if (box.open) box.querySelector('textarea')?.focus();
}

const showKeys = () => show(document.getElementById('keys'));

function commit(e) {
    e.preventDefault();
    const form = document.getElementById('commit');
    if (!form) return;
    document.getElementById('tray').open = true;
    // Where it cannot be, the server says why.
    form.requestSubmit();
}

const KEYS = [
    { keys: ['1 1', '…', '7 3'], words: 'go to the sheet of that number' },
    { keys: ['/', 'Control+k'], words: 'find anything', free: { '/': find }, always: { 'Control+k': find } },
    { keys: ['t'], words: 'open or close the tray', free: { t: tray } },
    { keys: ['Control+Enter'], words: 'commit what is staged', always: { 'Control+Enter': commit } },
    { keys: ['b'], words: 'put the bench strip away, or bring it back', free: { b: () => click('#strip-away') } },
    { keys: ['←', '→'], words: 'on a plot: move the view, or the crosshair' },
    { keys: ['+', '−', 'Home'], words: 'on a plot: zoom in, out, back to all' },
    { keys: ['?'], words: 'these keys, and words of ours', free: { '?': showKeys, 'Shift+?': showKeys } },
    { keys: ['Esc'], words: 'close what is open' },
];

const bindings = {};
for (const row of KEYS) {
    Object.assign(bindings, row.always ?? {});
    for (const [key, act] of Object.entries(row.free ?? {})) bindings[key] = (e) => free(e) && act(e);
}
// Whether somebody is typing is asked by each binding.
tinykeys(window, bindings, { ignore: (e) => e.repeat || e.isComposing });

// Two digits go to a sheet, but never while a motor turns.
let digit = '';
document.addEventListener('keydown', (e) => {
    if (!/^\d$/.test(e.key) || e.ctrlKey || e.metaKey || e.altKey || !free(e) || document.body.dataset.spinning) {
        digit = '';
        return;
    }
    const number = digit + e.key;
    digit = number.length === 1 ? number : '';
    if (number.length === 1) setTimeout(() => (digit = ''), 900);
    const sheet = document.querySelector(`[data-sheets] [data-number="${number}"]`);
    if (number.length === 2 && sheet) visit(sheet.href);
    else if (number.length === 2) say(`There is no sheet ${number}.`, true);
});

document.addEventListener('keydown', (e) => {
    if (e.key !== 'Escape') return;
    for (const open of document.querySelectorAll('details[data-light][open]')) {
        open.open = false;
        open.querySelector('summary').focus();
    }
});
document.addEventListener('click', (e) => {
    for (const open of document.querySelectorAll('details[data-light][open]'))
        if (!open.contains(e.target) && open.id !== 'tray') open.open = false;
});

attach('#keys', (box) => {
    const list = box.querySelector('.of-keys');
    list.replaceChildren();
    for (const { keys, words } of KEYS) {
        const dt = document.createElement('dt');
        for (const key of keys.flatMap((k) => k.split(/[ +](?=.)/))) {
            dt.append(key === '…' ? ' … ' : Object.assign(document.createElement('kbd'), { textContent: key.replace('Control', 'Ctrl') }));
        }
        list.append(dt, Object.assign(document.createElement('dd'), { textContent: words }));
    }
});
