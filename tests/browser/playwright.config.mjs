import { createHash } from 'node:crypto';
import { existsSync, statfsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { defineConfig } from '@playwright/test';

// In memory, where there is room: the data of the tests cost no disk.
const root = fileURLToPath(new URL('../..', import.meta.url));
const memory = '/dev/shm';
const free = existsSync(memory) ? statfsSync(memory).bavail * statfsSync(memory).bsize : 0;
const name = createHash('md5').update(root).digest('hex').slice(0, 8);
const data = free > 4e9 ? `${memory}/ortholex-${name}-browser` : `${root}var/browser-data`;

export default defineConfig({
    testDir: '.',
    workers: 1,
    fullyParallel: false,
    timeout: 240_000,
    expect: { timeout: 30_000 },
    reporter: [['list']],
    outputDir: '../../var/browser-results',
    forbidOnly: Boolean(process.env.CI),
    use: {
        baseURL: process.env.ORTHOLEX_URL ?? 'http://127.0.0.1:8799',
        viewport: { width: 1280, height: 800 },
        launchOptions: {
            executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
            args: [
                '--headless',
                '--no-sandbox',
                '--disable-gpu',
                '--disable-quic',
                '--no-first-run',
                '--disable-background-networking',
                '--disable-component-update',
                '--disable-sync',
            ],
        },
    },
    // Of what is served already, as by bin/deploy, its address is told.
    webServer: process.env.ORTHOLEX_URL
        ? undefined
        : {
              command: `rm -rf ${data} && ../../bin/start --port 8799`,
              url: 'http://127.0.0.1:8799/',
              timeout: 240_000,
              reuseExistingServer: false,
              env: {
                  ...process.env,
                  ORTHOLEX_DATA: data,
                  ORTHOLEX_PACE: '0.15',
                  ORTHOLEX_SYNC: '0',
              },
              stdout: 'ignore',
              stderr: 'pipe',
              gracefulShutdown: { signal: 'SIGTERM', timeout: 2000 },
          },
});
