// Builds public/build: scripts by esbuild, styles by sass then esbuild (which carries the fonts along), and a manifest.
import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { basename, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { build } from 'esbuild';
import { compile } from 'sass';
import { sheets } from './sheets.mjs';

const root = fileURLToPath(new URL('..', import.meta.url));
const out = join(root, 'public/build');
const modules = join(root, 'node_modules');
const made = join(root, 'var/assets');
const FONTS = [
    '@fontsource/ibm-plex-sans-condensed/latin-400.css',
    '@fontsource/ibm-plex-sans-condensed/latin-500.css',
    '@fontsource/ibm-plex-sans-condensed/latin-600.css',
    '@fontsource/ibm-plex-mono/latin-400.css',
    '@fontsource/ibm-plex-mono/latin-500.css',
    'uplot/dist/uPlot.min.css',
];
const { scripts, styles } = sheets(join(root, 'assets'));

rmSync(out, { recursive: true, force: true });
for (const folder of [out, made]) mkdirSync(folder, { recursive: true });
const options = { loadPaths: [modules], quietDeps: true, silenceDeprecations: ['import', 'global-builtin', 'color-functions'] };
const css = [join(root, 'assets/styles/app.scss'), ...styles].map((path) => compile(path, options).css.replace('@charset "UTF-8";', ''));
writeFileSync(join(made, 'app.css'), FONTS.map((font) => `@import "${font}";\n`).join('') + css.join('\n'));
writeFileSync(join(made, 'app.js'), [join(root, 'assets/app.js'), ...scripts].map((path) => `import ${JSON.stringify(path)};\n`).join(''));

const result = await build({
    entryPoints: { app: join(made, 'app.js'), styles: join(made, 'app.css') },
    bundle: true,
    minify: true,
    format: 'iife',
    target: 'es2022',
    outdir: out,
    entryNames: '[name]-[hash]',
    assetNames: 'fonts/[name]-[hash]',
    publicPath: '/build',
    loader: { '.woff2': 'file', '.woff': 'empty' },
    nodePaths: [modules],
    metafile: true,
    logLevel: 'warning',
});
const manifest = {};
for (const [path, info] of Object.entries(result.metafile.outputs)) {
    if (info.entryPoint) manifest[`build/${basename(info.entryPoint)}`] = `/build/${basename(path)}`;
}
writeFileSync(join(out, 'manifest.json'), JSON.stringify(manifest, null, 1));
