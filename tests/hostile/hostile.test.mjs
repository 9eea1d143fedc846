// Hard to hurt: one walk after the other on one data folder. SOAK_S: seconds of the last; 600 for the long one.
import { after } from 'node:test';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import bodies from './bodies.mjs';
import { clear, endAll, figures } from './hands.mjs';
import soak from './soak.mjs';
import starts from './start.mjs';

const folder = mkdtempSync(join(tmpdir(), 'ortholex-hostile-'));
const data = join(folder, 'data');
const port = Number(process.env.HOSTILE_PORT ?? 8797);
const only = process.env.HOSTILE_ONLY?.split(',') ?? ['start', 'bodies', 'soak'];

if (only.includes('start')) starts(port, data);
if (only.includes('bodies')) bodies(port, data);
if (only.includes('soak')) soak(port, data, Number(process.env.SOAK_S ?? 120));

after(() => {
    endAll();
    clear(folder);
    console.log(`# figures\n${figures.map((line) => `#   ${line}`).join('\n')}`);
});
