// The numbers and the picture of what is drawn, taken out by [data-export]. A press that comes before it is drawn is kept until it is.
let drawn = null;
const wanted = new Set();

document.addEventListener('click', (e) => {
    const button = e.target.closest?.('[data-export]');
    if (!button) return;
    if (drawn?.box.isConnected) return void drawn.ways[button.dataset.export]?.();
    wanted.add(button.dataset.export);
    button.setAttribute('aria-busy', 'true');
});

// ways: { csv, png }, each called when asked for, while the box is there.
export function offer(box, ways) {
    drawn = { box, ways };
    for (const button of document.querySelectorAll('[data-export]')) button.removeAttribute('aria-busy');
    for (const kind of wanted) ways[kind]?.();
    wanted.clear();
}

document.addEventListener('turbo:visit', (e) => {
    if (e.detail.action !== 'replace') wanted.clear();
});
