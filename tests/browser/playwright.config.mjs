import { defineConfig } from '@playwright/test';

export default defineConfig({
    testDir: '.',
    workers: 1,
    fullyParallel: false,
    timeout: 150_000,
    expect: { timeout: 30_000 },
    reporter: [['list']],
    outputDir: '../../var/browser-results',
    forbidOnly: Boolean(process.env.CI),
    use: {
        baseURL: 'http://127.0.0.1:8799',
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
    webServer: {
        command: 'rm -rf ../../var/browser-data && ../../bin/start --port 8799',
        url: 'http://127.0.0.1:8799/',
        timeout: 240_000,
        reuseExistingServer: false,
        env: {
            ...process.env,
            ORTHOLEX_DATA: new URL('../../var/browser-data', import.meta.url).pathname,
            ORTHOLEX_PACE: '0.15',
            ORTHOLEX_SYNC: '0',
        },
        stdout: 'ignore',
        stderr: 'pipe',
        gracefulShutdown: { signal: 'SIGTERM', timeout: 2000 },
    },
});
