// Brings scripts to the elements they are for, whenever these come, and takes them away when they go.
const known = [];
const living = new Map();
let due = false;

// begin(element, signal) is called once for each element; signal ends its listeners when it has gone. A function that it gives
// back is called when the page was refreshed in place.
export function attach(selector, begin) {
    known.push({ selector, begin });
    // A module calls this before all of it is there; all that are called together look once.
    if (!due) queueMicrotask(() => look(false));
    due = true;
}

function look(refreshed) {
    due = false;
    for (const [element, ways] of living) {
        if (element.isConnected) continue;
        for (const way of ways.values()) way.end.abort();
        living.delete(element);
    }
    for (const { selector, begin } of known) {
        for (const element of document.querySelectorAll(selector)) {
            const ways = living.get(element) ?? new Map();
            living.set(element, ways);
            const way = ways.get(begin);
            if (way) {
                if (refreshed) way.refresh?.();
                continue;
            }
            const end = new AbortController();
            const mine = { end, refresh: null };
            ways.set(begin, mine);
            const refresh = begin(element, end.signal);
            if (typeof refresh === 'function') mine.refresh = refresh;
        }
    }
}

document.addEventListener('turbo:render', () => look(true));
