// What acts while it is held. Letting go, losing focus or ten seconds stop it.
export const BEAT_MS = 220;
const LONGEST_MS = 10_000;

export function fail(error) {
    const problem = document.getElementById('spin-problem');
    problem.textContent = error.message;
    problem.hidden = false;
}

// act(ms since it began) at each beat; it stops by stop(), ten seconds, or act() saying 'done'; stopped(done) is then called.
export function held(act, stopped) {
    let timer = null;
    let busy = false;
    let began = 0;
    const stop = (done = false) => {
        if (timer === null) return;
        clearInterval(timer);
        timer = null;
        delete document.body.dataset.spinning;
        stopped(done === true);
    };
    const beat = async () => {
        if (busy) return;
        if (Date.now() - began > LONGEST_MS) {
            stop();
            return;
        }
        busy = true;
        try {
            if ((await act(Date.now() - began)) === 'done') stop(true);
        } catch (error) {
            stop();
            fail(error);
        } finally {
            busy = false;
        }
    };
    const start = () => {
        if (timer !== null) return;
        document.getElementById('spin-problem').hidden = true;
        began = Date.now();
        document.body.dataset.spinning = '1';
        timer = setInterval(beat, BEAT_MS);
        beat();
    };
    return { start, stop };
}

// It stops when the page is left or hidden, too.
export function letGo(stop, signal) {
    window.addEventListener('blur', () => stop(), { signal });
    document.addEventListener('visibilitychange', () => stop(), { signal });
    signal.addEventListener('abort', () => stop());
}

// Space holds what is at hand, wherever the last click went: only what takes a space itself keeps it.
const TAKES_SPACE = 'input, select, textarea, button, a[href], summary, [data-pad]:not([data-arc]), [contenteditable], dialog';

export function spaceHolds(start, signal) {
    document.addEventListener(
        'keydown',
        (e) => {
            if (e.key !== ' ' || e.repeat || e.target.closest(TAKES_SPACE)) return;
            e.preventDefault();
            start();
        },
        { signal },
    );
}

// A button that acts while it is held.
export function holding(button, signal, act, stopped) {
    const { start, stop } = held(act, (done) => {
        button.classList.remove('held');
        stopped(done);
    });
    const begin = () => {
        if (button.disabled) return;
        button.classList.add('held');
        start();
    };
    const on = (target, name, way) => target.addEventListener(name, way, { signal });
    // Without scripts a press is a form; with them it is held instead.
    on(button.form, 'submit', (e) => e.preventDefault());
    on(button, 'pointerdown', (e) => {
        button.setPointerCapture(e.pointerId);
        begin();
    });
    for (const end of ['pointerup', 'pointercancel', 'keyup', 'blur']) on(button, end, () => stop());
    on(button, 'keydown', (e) => {
        if (e.key !== ' ' && e.key !== 'Enter') return;
        e.preventDefault();
        begin();
    });
    letGo(stop, signal);
    spaceHolds(() => {
        button.focus();
        begin();
    }, signal);
}
