// Which scripts and styles there are: that of every folder which has one of its own name, so that a sheet plugs in by its folder.
import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';

export function sheets(...roots) {
    const found = { scripts: [], styles: [] };
    for (const root of roots) {
        for (const entry of readdirSync(root, { withFileTypes: true })) {
            if (!entry.isDirectory()) continue;
            const path = join(root, entry.name, entry.name);
            if (existsSync(`${path}.js`)) found.scripts.push(`${path}.js`);
            if (existsSync(`${path}.scss`)) found.styles.push(`${path}.scss`);
        }
    }
    return found;
}
