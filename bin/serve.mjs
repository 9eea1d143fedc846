// The server that browsers meet: it bounds and checks what comes before PHP sees any of it, serves what is built, and keeps PHP's own
// server behind it, which would read a body of any size, wait for slow readers, and leave its workers when it dies.
//   node bin/serve.mjs PORT DATA -- php ARGUMENTS…     (it adds -S with an address that only it knows)
import { spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { createReadStream, mkdirSync, readFileSync, statSync } from 'node:fs';
import { open, unlink } from 'node:fs/promises';
import { createServer, get, request } from 'node:http';
import { connect, createServer as createSocket } from 'node:net';
import { dirname, extname, join, normalize } from 'node:path';
import { createInterface } from 'node:readline';
import { fileURLToPath } from 'node:url';

const PUBLIC = join(dirname(fileURLToPath(import.meta.url)), '..', 'public');
const [port, data] = [Number(process.argv[2]), process.argv[3]];
const [php, ...options] = process.argv.slice(process.argv.indexOf('--') + 1);
const WORKERS = 4;
// Pieces of an upload have 4 MB at most.
const MOST_BODY = 8 * 1024 * 1024;
const MOST_WAITING = 512;
// What a reader has not taken yet is kept here so far, and then on disk.
const MOST_UNREAD = 4 * 1024 * 1024;
// An answer is held back so far, so that one that breaks off is nobody's.
const MOST_HELD = 1024 * 1024;
const OURS = /^(localhost|127(\.\d{1,3}){3}|\[::1\])(:\d{1,5})?$/;
const TYPES = {
    '.css': 'text/css; charset=utf-8',
    '.js': 'text/javascript; charset=utf-8',
    '.json': 'application/json',
    '.svg': 'image/svg+xml',
    '.ico': 'image/x-icon',
    '.woff2': 'font/woff2',
};
const SAFE = {
    'Content-Security-Policy': "default-src 'none'; frame-ancestors 'none'",
    'X-Content-Type-Options': 'nosniff',
    'Referrer-Policy': 'same-origin',
    'Cross-Origin-Opener-Policy': 'same-origin',
    'Cross-Origin-Resource-Policy': 'same-origin',
};
const wait = (ms) => new Promise((done) => setTimeout(done, ms));
const secret = randomBytes(18).toString('hex');
const spools = join(data, 'tmp');
mkdirSync(spools, { recursive: true, mode: 0o700 });

// PHP behind it: one server with its workers at a time; one that has lost a worker is replaced, and ends when its last answer is given.

let current = null;
let ending = false;
let quickEnds = 0;
const all = new Set();

const freePort = () =>
    new Promise((found) => {
        const probe = createSocket().listen(0, '127.0.0.1', () => {
            const { port: free } = probe.address();
            probe.close(() => found(free));
        });
    });

const accepts = (at) =>
    new Promise((told) => {
        const socket = connect(at, '127.0.0.1');
        socket.on('connect', () => told(socket.destroy() && true));
        socket.on('error', () => told(false));
    });

function kill(behind, signal) {
    try {
        process.kill(-behind.child.pid, signal);
    } catch {
        // It is gone already.
    }
}

async function startPhp() {
    const behind = { port: await freePort(), under: 0, began: Date.now(), over: false };
    behind.child = spawn(php, [...options.slice(0, -1), '-S', `127.0.0.1:${behind.port}`, options.at(-1)], {
        // A group of its own: its workers end with it, whatever ends it.
        detached: true,
        stdio: ['ignore', 'ignore', 'pipe'],
        env: { ...process.env, PHP_CLI_SERVER_WORKERS: String(WORKERS), ORTHOLEX_FRONT: secret },
    });
    all.add(behind);
    // Should this process be killed, its end of the pipe closes, and who reads it ends the group.
    const keeper = spawn('sh', ['-c', 'read -r _; kill -9 "-$0" 2>/dev/null', String(behind.child.pid)], {
        detached: true,
        stdio: ['pipe', 'ignore', 'ignore'],
    });
    keeper.unref();
    keeper.stdin.on('error', () => {});
    createInterface({ input: behind.child.stderr }).on('line', (line) => {
        if (!/ (Accepted|Closing|\[\d{3}\]: )| Development Server |Closed without sending a request/.test(line)) console.error(line);
    });
    behind.child.on('exit', () => {
        behind.over = true;
        all.delete(behind);
        keeper.stdin.end();
        if (!ending && behind === current) replace();
    });
    for (const until = Date.now() + 20_000; !behind.over && Date.now() < until && !(await accepts(behind.port));) await wait(50);
    return behind;
}

async function replace() {
    if (replace.busy) return;
    replace.busy = true;
    const old = current;
    quickEnds = old && Date.now() - old.began < 2000 ? quickEnds + 1 : 0;
    if (quickEnds > 3) {
        console.error('PHP ends as soon as it is started; its words stand above.');
        end(1);
        return;
    }
    if (old) console.error(old.over ? 'PHP ended, and is started anew.' : 'PHP has lost a worker, and is replaced.');
    current = await startPhp();
    replace.busy = false;
    if (old && !old.over) {
        for (const until = Date.now() + 65_000; old.under > 0 && Date.now() < until;) await wait(200);
        kill(old, 'SIGKILL');
    }
    if (current.over && !ending) replace();
}

function wholePhp() {
    if (ending || replace.busy || !current || current.over || Date.now() - current.began < 3000) return;
    try {
        const { pid } = current.child;
        const children = readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8').trim().split(/\s+/).filter(Boolean);
        // One that was killed is still told, as long as nobody asks how it ended.
        const workers = children.filter((one) => !/\) Z /.test(readFileSync(`/proc/${one}/stat`, 'utf8'))).length;
        if (workers < WORKERS) replace();
    } catch {
        // Not told on this machine.
    }
}

// What is under way, as a Commit may be, is let come to its end for a while; asked a second time, it ends at once.
function end(code) {
    const over = () => {
        for (const behind of all) kill(behind, 'SIGKILL');
        process.exit(code);
    };
    if (ending) {
        over();
        return;
    }
    ending = true;
    front.close();
    front.closeIdleConnections();
    const until = Date.now() + 10_000;
    const look = () => {
        if (under.all > 0 && Date.now() < until) {
            setTimeout(look, 50);
            return;
        }
        for (const behind of all) kill(behind, 'SIGINT');
        setTimeout(over, 300);
    };
    look();
}

for (const [signal, code] of Object.entries({ SIGINT: 130, SIGTERM: 143, SIGHUP: 129 })) process.on(signal, () => end(code));

// In turn: as many at once as there are workers, and of those that send much only half.

const waiting = [];
const under = { all: 0, long: 0 };
const mayBegin = ({ long }) => under.all < WORKERS && (!long || under.long < WORKERS / 2);

function next() {
    if (ending) return;
    for (let at = waiting.findIndex(mayBegin); at >= 0; at = waiting.findIndex(mayBegin)) {
        const [{ long, begin }] = waiting.splice(at, 1);
        under.all += 1;
        under.long += long ? 1 : 0;
        let done = false;
        begin(() => {
            if (done) return;
            done = true;
            under.all -= 1;
            under.long -= long ? 1 : 0;
            next();
        });
    }
}

// What is refused before anything of it is read

const refuse = (res, status, words) => {
    res.writeHead(status, { ...SAFE, 'Content-Type': 'text/plain; charset=utf-8', 'Cache-Control': 'no-store', Connection: 'close' });
    res.end(`${words}\n`);
    // Whatever it still sends is not read.
    res.on('finish', () => res.socket?.destroySoon());
};

function refused(req, res) {
    const { host = '', origin, 'sec-fetch-site': site } = req.headers;
    if (!OURS.test(host)) {
        refuse(res, 421, `Ortholex answers only on this machine, not as “${host.slice(0, 200)}”. Open it as 127.0.0.1.`);
        return true;
    }
    if (req.method === 'GET' || req.method === 'HEAD') return false;
    const ours =
        origin !== undefined ? origin === `http://${host}` : site !== undefined ? site === 'same-origin' : 'x-ortholex' in req.headers;
    if (!ours || (site !== undefined && site !== 'same-origin')) {
        refuse(res, 403, 'This write did not come from an Ortholex page and was refused. Other programs send the header X-Ortholex: 1.');
        return true;
    }
    return false;
}

const tooLarge = (res) => refuse(res, 413, `That is more than ${MOST_BODY / 1024 / 1024} MB at once. Files are taken in by pieces.`);

// The whole body, or null where it was too large, was cut off, or came with none of the length it said.
function bodyOf(req, res) {
    return new Promise((got) => {
        const pieces = [];
        let bytes = 0;
        req.on('data', (piece) => {
            bytes += piece.length;
            if (bytes > MOST_BODY) {
                req.pause();
                tooLarge(res);
                got(null);
            } else pieces.push(piece);
        });
        req.on('end', () => got(Buffer.concat(pieces)));
        req.on('close', () => got(null));
        req.on('error', () => got(null));
    });
}

// Built files, under names that change with their content

function built(req, res, path) {
    const file = normalize(join(PUBLIC, path));
    const found = file.startsWith(`${PUBLIC}/`) && TYPES[extname(file)] ? statSync(file, { throwIfNoEntry: false }) : undefined;
    if (!found?.isFile()) return false;
    if (req.method !== 'GET' && req.method !== 'HEAD') {
        refuse(res, 405, 'A file can only be read.');
        return true;
    }
    res.writeHead(200, {
        ...SAFE,
        'Content-Type': TYPES[extname(file)],
        'Content-Length': found.size,
        'Cache-Control': 'public, max-age=31536000, immutable',
    });
    if (req.method === 'HEAD') res.end();
    else createReadStream(file).pipe(res);
    return true;
}

// What PHP answers is taken as fast as it comes, and given as fast as it is read. It is held until it is whole, or much: where PHP dies
// before that, nobody has seen anything of it, and the page is asked for once more.
async function relay(answer, res, done, lost) {
    const headers = { ...answer.headers };
    for (const name of ['connection', 'date', 'host', 'transfer-encoding', 'x-powered-by']) delete headers[name];
    const held = [];
    let bytes = 0;
    const give = () => {
        res.writeHead(answer.statusCode, headers);
        for (const piece of held.splice(0)) res.write(piece);
    };
    let spool = null;
    const path = join(spools, randomBytes(8).toString('hex'));
    try {
        for await (const piece of answer) {
            bytes += piece.length;
            if (!res.headersSent) {
                held.push(piece);
                if (bytes > MOST_HELD) give();
                continue;
            }
            if (!spool && res.writableLength < MOST_UNREAD) {
                res.write(piece);
                continue;
            }
            if (!spool) {
                spool = await open(path, 'wx+', 0o600);
                await unlink(path);
            }
            await spool.write(piece);
        }
        done();
        if (res.destroyed) {
            await spool?.close();
            return;
        }
        if (!res.headersSent) give();
        if (!spool) {
            res.end();
            return;
        }
        const rest = spool.createReadStream({ start: 0 });
        rest.on('error', () => res.destroy());
        res.on('close', () => rest.destroy());
        rest.pipe(res);
    } catch {
        if (!res.headersSent && !res.destroyed) {
            lost();
            return;
        }
        // PHP died, or the disk is full: what was sent is no whole answer, and the browser is told so.
        res.destroy();
        await spool?.close().catch(() => {});
        done();
    }
}

function pass(req, res, body, done, until = Date.now() + 20_000) {
    const headers = { ...req.headers, 'x-ortholex-front': secret };
    for (const name of ['connection', 'transfer-encoding', 'expect', 'keep-alive']) delete headers[name];
    if (body.length || 'content-length' in headers) headers['content-length'] = String(body.length);
    const behind = current;
    if (!behind || behind.over) {
        // It is only being started.
        if (Date.now() < until && !res.destroyed) setTimeout(() => pass(req, res, body, done, until), 100);
        else {
            done();
            if (!res.destroyed)
                refuse(res, 502, 'The work behind this page could not be started. Its words stand where Ortholex was started.');
        }
        return;
    }
    const up = request({ host: '127.0.0.1', port: behind.port, method: req.method, path: req.url, headers, agent: false });
    let answered = false;
    behind.under += 1;
    up.on('close', () => (behind.under -= 1));
    // Nothing was sent yet, or it was only asked: then it may be sent again, to whatever stands there then.
    const lost = (again) => {
        if ((again || req.method === 'GET' || req.method === 'HEAD') && Date.now() < until) {
            setTimeout(() => (res.destroyed ? done() : pass(req, res, body, done, until)), 100);
            return;
        }
        done();
        if (!res.headersSent)
            refuse(res, 502, 'The work behind this page ended without an answer. Load it anew, and look what became of it.');
    };
    up.on('response', (answer) => {
        answered = true;
        relay(answer, res, done, () => lost(false));
    });
    up.on('error', (error) => {
        if (answered) return;
        if (res.destroyed) done();
        else lost(error.code === 'ECONNREFUSED');
    });
    res.up = up;
    up.end(body);
}

function begin(req, res, body, done) {
    if (res.destroyed) {
        done();
        return;
    }
    res.on('close', () => {
        if (!res.writableFinished) res.up?.destroy();
        done();
    });
    pass(req, res, body, done);
}

async function serve(req, res) {
    if (refused(req, res)) return;
    const length = Number(req.headers['content-length'] ?? 0);
    if (!(length <= MOST_BODY)) {
        tooLarge(res);
        return;
    }
    const path = req.url.split('?', 1)[0];
    if (/^\/(build\/[\w./-]+|favicon\.(svg|ico))$/.test(path) && built(req, res, path)) return;
    if (waiting.length >= MOST_WAITING) {
        refuse(res, 503, 'Too much is asked at once. Try again in a moment.');
        return;
    }
    if (req.headers.expect) res.writeContinue();
    const body = await bodyOf(req, res);
    if (body === null || res.destroyed || res.headersSent) return;
    const long = /\.(csv|zip|gpx|geojson)$/.test(path);
    waiting.push({ long, begin: (done) => begin(req, res, body, done) });
    next();
}

// One request that goes wrong costs nobody else anything.
process.on('uncaughtException', (error) => console.error(error));

const front = createServer({
    headersTimeout: 15_000,
    requestTimeout: 120_000,
    keepAliveTimeout: 30_000,
    connectionsCheckingInterval: 5_000,
});
front.on('request', serve);
front.on('checkContinue', serve);
front.setTimeout(120_000);
front.on('clientError', (error, socket) => {
    if (!socket.writable) return void socket.destroy();
    const status = { HPE_HEADER_OVERFLOW: '431 Request Header Fields Too Large', ERR_HTTP_REQUEST_TIMEOUT: '408 Request Timeout' }[
        error.code
    ];
    const safe = Object.entries(SAFE).map(([name, value]) => `${name}: ${value}\r\n`);
    socket.end(`HTTP/1.1 ${status ?? '400 Bad Request'}\r\n${safe.join('')}Content-Length: 0\r\nConnection: close\r\n\r\n`);
});
front.on('error', (error) => {
    console.error(
        error.code === 'EADDRINUSE'
            ? `Port ${port} is taken by another program. Start with another one: bin/start --port ${port + 1}`
            : `Port ${port} cannot be served: ${error.message}`,
    );
    end(1);
});
front.listen(port, '127.0.0.1', async () => {
    current = await startPhp();
    setInterval(wholePhp, 1000).unref();
    const until = Date.now() + 30_000;
    const look = () =>
        get({ host: '127.0.0.1', port, path: '/', agent: false }, (answer) => {
            answer.resume();
            console.log(`Ortholex: http://127.0.0.1:${port}/   (Ctrl+C ends it)`);
        }).on('error', () => (Date.now() < until ? setTimeout(look, 200) : end(1)));
    look();
});
