// Sheet 63: what is chosen to be varied brings its own range.
import { attach } from '../_parts/attach.js';

attach('#series-vary', (select, signal) => {
    select.addEventListener(
        'change',
        () => {
            const { from, to } = select.selectedOptions[0].dataset;
            document.getElementById('series-from').value = from;
            document.getElementById('series-to').value = to;
        },
        { signal },
    );
});
