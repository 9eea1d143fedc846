// A bar of progress, by its share of one.
export function progress(box, share) {
    const percent = String(Math.round(100 * share));
    box.setAttribute('aria-valuenow', percent);
    box.firstElementChild.dataset.percent = percent;
}
