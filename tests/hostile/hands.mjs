// What the hostile walks share: starting and ending servers, asking them by hand, and saying figures.
import { spawn } from 'node:child_process';
import { readFileSync, rmSync } from 'node:fs';
import { connect } from 'node:net';
import { request } from 'node:http';
import { fileURLToPath } from 'node:url';

export const root = fileURLToPath(new URL('../..', import.meta.url));
export const figures = [];
export const figure = (what, value) => {
    figures.push(`${what}: ${value}`);
    console.log(`# ${what}: ${value}`);
};
export const wait = (ms) => new Promise((done) => setTimeout(done, ms));

// bin/start in a group of its own; said() is all it has printed.
const started = new Set();

export function start(port, data, { bin = `${root}bin/start`, cwd = root, args = [] } = {}) {
    let said = '';
    const child = spawn(bin, ['--port', String(port), ...args], {
        cwd,
        detached: true,
        env: { ...process.env, ORTHOLEX_DATA: data, ORTHOLEX_PACE: '0.05', ORTHOLEX_SYNC: '0' },
        stdio: ['ignore', 'pipe', 'pipe'],
    });
    child.stdout.on('data', (bytes) => (said += bytes));
    child.stderr.on('data', (bytes) => (said += bytes));
    const ended = new Promise((done) => child.on('exit', (code, signal) => done(code ?? signal)));
    started.add(child.pid);
    ended.then(() => started.delete(child.pid));
    return { pid: child.pid, ended, said: () => said };
}

export async function answers(server, ms = 180_000) {
    const until = Date.now() + ms;
    let over = null;
    server.ended.then((code) => (over = code));
    while (!server.said().includes('Ctrl+C ends it')) {
        if (over !== null || Date.now() > until) throw new Error(`It did not start (${over}): ${server.said()}`);
        await wait(100);
    }
}

export function kill(pid, signal = 'SIGTERM') {
    try {
        process.kill(pid, signal);
    } catch {
        // It is gone.
    }
}

// Whatever a walk that broke off has left running.
export const endAll = () => [...started].forEach((pid) => kill(-pid));

// As a terminal does at Ctrl+C: to all that is in the foreground.
export const interrupt = (pid) => kill(-pid, 'SIGINT');

export async function end(server) {
    kill(-server.pid);
    await Promise.race([server.ended, wait(5000)]);
}

export const isFree = (port) =>
    new Promise((told) => {
        const socket = connect(port, '127.0.0.1');
        socket.on('connect', () => {
            socket.destroy();
            told(false);
        });
        socket.on('error', () => told(true));
    });

export async function freed(port, ms = 5000) {
    for (const until = Date.now() + ms; Date.now() < until; await wait(50)) if (await isFree(port)) return true;
    return false;
}

// One request, whole: status, headers, text.
export const ask = (port, path, { method = 'GET', headers = {}, body = null, timeout = 30_000 } = {}) =>
    new Promise((done, failed) => {
        const asked = request({ host: '127.0.0.1', port, path, method, headers, agent: false, timeout }, (answer) => {
            const pieces = [];
            answer.on('data', (piece) => pieces.push(piece));
            answer.on('end', () => done({ status: answer.statusCode, headers: answer.headers, text: Buffer.concat(pieces).toString() }));
            answer.on('error', failed);
        });
        asked.on('timeout', () => asked.destroy(new Error(`No answer to ${method} ${path} in ${timeout} ms.`)));
        asked.on('error', failed);
        asked.end(body);
    });

export const act = (port, path, fields = {}) =>
    ask(port, path, {
        method: 'POST',
        headers: { 'X-Ortholex': '1', 'Content-Type': 'application/json', Accept: 'application/json' },
        body: JSON.stringify(fields),
    });

// Bytes as they are, sent to the server; what it answers until it closes or the time is over.
export const raw = (port, bytes, ms = 4000) =>
    new Promise((done) => {
        let said = '';
        const socket = connect(port, '127.0.0.1', () => socket.write(bytes));
        socket.on('data', (piece) => (said += piece));
        socket.on('error', () => {});
        const over = setTimeout(() => socket.destroy(), ms);
        socket.on('close', () => {
            clearTimeout(over);
            done(said);
        });
    });

// Memory of a group of processes, MB: what is its own, and its share of what it has with others.
export function memory(pids) {
    const of = (pid) => {
        try {
            const found = /^Pss:\s+(\d+)/m.exec(readFileSync(`/proc/${pid}/smaps_rollup`, 'utf8'));
            return found ? Number(found[1]) / 1024 : 0;
        } catch {
            return 0; // It has ended since.
        }
    };
    return pids.reduce((all, one) => all + of(one), 0);
}

// What was ended a moment ago may still put a file there.
export const clear = (path) => rmSync(path, { recursive: true, force: true, maxRetries: 20, retryDelay: 250 });
