// What every page has. Each sheet's own script stands in the folder of its name and is found there by the build.
import Alpine from '@alpinejs/csp';
import './shell/turbo.js';
import './shell/forms.js';
import './shell/said.js';
import './shell/live.js';
import './shell/jobs.js';
import './shell/bench.js';
import './shell/keys.js';
import './shell/tray.js';
import { search } from './shell/search.js';

Alpine.data('search', search);
Alpine.start();
document.documentElement.dataset.started = '1';
