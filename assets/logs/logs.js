// Sheet 51: a file is taken in piece by piece, so that it may be large.
import { attach } from '../_parts/attach.js';
import { post, upload } from '../shell/http.js';
import { say } from '../shell/said.js';
import { refreshPage, visit } from '../shell/turbo.js';

// What follows from the columns as they are chosen is drawn anew at each choice.
attach('form[data-follows]', (form, signal) => {
    let asked = 0;
    const draw = async () => {
        const mine = ++asked;
        const wanted = new URLSearchParams(new FormData(form));
        wanted.set('part', 'follows');
        try {
            const answer = await fetch(`${form.dataset.follows}?${wanted}`);
            const drawn = await answer.text();
            const there = document.getElementById('follows');
            if (answer.ok && mine === asked && there) there.outerHTML = drawn;
        } catch {
            say('What follows could not be drawn anew: the program did not answer. Your choices stand.', true);
        }
    };
    form.addEventListener('change', draw, { signal });
    // A page that is drawn anew around the choices, as when the theme changes, shows what followed from the first guess.
    const drawIfChosen = () => {
        const chosen = [...form.querySelectorAll('option')].some((one) => one.selected !== one.defaultSelected);
        if (chosen) draw();
    };
    document.addEventListener('turbo:render', drawIfChosen, { signal });
    drawIfChosen();
});

// What a device will be done with at a known time is drawn anew then.
attach('[data-refresh-in]', (element, signal) => {
    const due = setTimeout(refreshPage, 1000 * Number(element.dataset.refreshIn));
    signal.addEventListener('abort', () => clearTimeout(due));
});

// What was being taken in when the page went: a reload cuts it off, and that is said. Another sheet does not.
const UNDER_WAY = 'taking in';
let takingIn = false;
// As the page goes, what it has asked for is broken off before it is gone: the mark outlives that by so long, ms.
const OUTLIVES = 3000;

window.addEventListener('beforeunload', (e) => {
    if (takingIn) e.preventDefault();
});

attach('[data-import]', (input, signal) => {
    const tell = (words) => {
        const problem = document.getElementById('import-problem');
        if (!problem) return say(words, true);
        problem.textContent = words;
        problem.hidden = false;
    };
    const lost = sessionStorage.getItem(UNDER_WAY);
    if (lost && !takingIn) {
        sessionStorage.removeItem(UNDER_WAY);
        tell(`${lost} was not taken in: the page was loaded anew meanwhile. Choose it once more.`);
    }
    const take = async () => {
        const [file] = input.files;
        if (!file) return;
        const problem = document.getElementById('import-problem');
        problem.hidden = true;
        sessionStorage.setItem(UNDER_WAY, file.name);
        takingIn = true;
        try {
            const id = await upload(file, (share) => say(`Taking in ${file.name}, ${Math.round(100 * share)} %`));
            const answer = await post(input.dataset.import, { upload: id, name: file.name });
            sessionStorage.removeItem(UNDER_WAY);
            if (answer.ask) visit(answer.ask);
            else refreshPage();
        } catch (error) {
            tell(`${file.name}: ${error.message}`);
            setTimeout(() => takingIn || sessionStorage.removeItem(UNDER_WAY), OUTLIVES);
        } finally {
            takingIn = false;
        }
        input.value = '';
    };
    input.addEventListener('change', take, { signal });
});
