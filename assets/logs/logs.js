// Sheet 51: a file is taken in piece by piece, so that it may be large.
import { attach } from '../_parts/attach.js';
import { post, upload } from '../shell/http.js';
import { say } from '../shell/said.js';
import { refreshPage, visit } from '../shell/turbo.js';

attach('[data-import]', (input, signal) => {
    const take = async () => {
        const [file] = input.files;
        if (!file) return;
        const problem = document.getElementById('import-problem');
        problem.hidden = true;
        try {
            const id = await upload(file, (share) => say(`Taking in ${file.name}, ${Math.round(100 * share)} %`));
            const answer = await post(input.dataset.import, { upload: id, name: file.name });
            if (answer.ask) visit(answer.ask);
            else refreshPage();
        } catch (error) {
            problem.textContent = `${file.name}: ${error.message}`;
            problem.hidden = false;
        }
        input.value = '';
    };
    input.addEventListener('change', take, { signal });
});
