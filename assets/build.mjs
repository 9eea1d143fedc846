// Builds public/build: scripts by esbuild, styles by sass then esbuild (which carries the fonts along), and a manifest.
import { build } from 'esbuild';
import { compile } from 'sass';
import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { basename, join } from 'node:path';

const root = new URL('..', import.meta.url).pathname;
const out = join(root, 'public/build');
rmSync(out, { recursive: true, force: true });
mkdirSync(out, { recursive: true });
const styles = compile(join(root, 'assets/styles/app.scss'), { loadPaths: [join(root, 'node_modules')], quietDeps: true, silenceDeprecations: ['import', 'global-builtin', 'color-functions'] });
mkdirSync(join(root, 'var'), { recursive: true });
const sheet = join(root, 'var/app.css');
const fonts = ['@fontsource/ibm-plex-sans-condensed/latin-400.css', '@fontsource/ibm-plex-sans-condensed/latin-500.css', '@fontsource/ibm-plex-sans-condensed/latin-600.css', '@fontsource/ibm-plex-mono/latin-400.css', '@fontsource/ibm-plex-mono/latin-500.css', 'uplot/dist/uPlot.min.css'];
writeFileSync(sheet, fonts.map((f) => `@import "${f}";\n`).join('') + styles.css.replace('@charset "UTF-8";', ''));
const result = await build({
  entryPoints: { app: join(root, 'assets/app.js'), theme: join(root, 'assets/theme.js'), styles: sheet },
  bundle: true, minify: true, format: 'iife', target: 'es2022', outdir: out, entryNames: '[name]-[hash]', assetNames: 'fonts/[name]-[hash]',
  publicPath: '/build', loader: { '.woff2': 'file', '.woff': 'empty' }, nodePaths: [join(root, 'node_modules')], metafile: true, logLevel: 'warning',
});
const manifest = {};
for (const [path, info] of Object.entries(result.metafile.outputs)) {
  if (!info.entryPoint) continue;
  const name = basename(info.entryPoint) === 'app.css' ? 'app.css' : basename(info.entryPoint);
  if (path.endsWith('.css') === name.endsWith('.css')) manifest[name] = basename(path);
}
writeFileSync(join(out, 'manifest.json'), JSON.stringify(manifest, null, 1));
