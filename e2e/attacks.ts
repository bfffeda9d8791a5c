// Hostile HTML: the attack strings of DOMPurify's published tests (its package of version 0.8.2, test/fixtures/expect.js),
// and some of our own that reach for the network.
import { createServer } from 'node:http';
import { createRequire } from 'node:module';
import type { AddressInfo } from 'node:net';

export const published = createRequire(import.meta.url)('dompurify-published-tests/test/fixtures/expect.js') as {
  payload: string;
}[];

/** Strings that would call `url` if anything of them ran or was fetched. */
export const reaching = (url: string): string[] => [
  `<img src="${url}/img">`,
  `<img srcset="${url}/srcset 1x">`,
  `<img src=x onerror="fetch('${url}/onerror')">`,
  `<script src="${url}/script"></script><script>fetch('${url}/inline')</script>`,
  `<link rel="stylesheet" href="${url}/link"><link rel="prefetch" href="${url}/prefetch"><link rel="preconnect" href="${url}">`,
  `<style>@import url(${url}/import); body { background: url(${url}/css) } @font-face { font-family: x; src: url(${url}/font) } p { font-family: x }</style><p>x</p>`,
  `<p style="background-image: url('${url}/style'); background-image: image-set('${url}/set' 1x)">x</p>`,
  `<table background="${url}/table"><tr><td background="${url}/td">x</td></tr></table><body background="${url}/body">`,
  `<iframe src="${url}/iframe"></iframe><iframe srcdoc="<img src='${url}/srcdoc'>"></iframe><object data="${url}/object"></object><embed src="${url}/embed">`,
  `<svg><image href="${url}/svg" /><use href="${url}/use#x" /><script>fetch('${url}/svgscript')</script></svg><svg onload="fetch('${url}/svgonload')">`,
  `<video src="${url}/video" poster="${url}/poster" autoplay></video><audio src="${url}/audio" autoplay></audio>`,
  `<meta http-equiv="refresh" content="0; url=${url}/refresh"><base href="${url}/base/"><img src="relative">`,
  `<form action="${url}/form"><input type="image" src="${url}/input" autofocus onfocus="fetch('${url}/focus')"></form>`,
  `<a href="javascript:fetch('${url}/js')" autofocus onfocus="fetch('${url}/afocus')">x</a><a ping="${url}/ping" href="#">x</a>`,
  `<details open ontoggle="fetch('${url}/toggle')">x</details><math><mtext><img src="${url}/math"></mtext></math>`,
  // What only a parser of CSS sees: escapes, comments, custom properties, rules within rules.
  `<style>p { background: u\\72l(${url}/escaped) } @im\\port "${url}/escaped-import"; @import/**/"${url}/comment";</style><p>x</p>`,
  `<p style="background: u\\72l(${url}/style-escape); list-style: \\75rl(${url}/list)">x</p>`,
  `<style>:root { --a: url(${url}/custom) } p { background: var(--a) } @media all { p { border-image: image-set("${url}/media" 1x) } } @layer l { p { background: url(${url}/layer) } } @supports (color: red) { p { cursor: url(${url}/cursor), auto } }</style><p>x</p>`,
  `<style>p::before { content: url(${url}/content) } p { mask: url(${url}/mask#x); filter: url(${url}/filter#x); shape-outside: url(${url}/shape); offset-path: url(${url}/offset#x) }</style><p>x</p>`,
  `<style>a[title="</style><img src=x onerror=fetch('${url}/selector')>"] { color: red } p::after { content: "</style><img src=${url}/string>" }</style><p>x</p>`,
  `<img src="cid:constructor"><img src="cid:__proto__"><img src="data:image/svg+xml,<svg xmlns='http://www.w3.org/2000/svg' onload='fetch(&quot;${url}/datasvg&quot;)'><image href='${url}/datasvgimage'/></svg>">`,
];

/** A server that hears of whatever reaches for it; `/bare` is a page of its own, without walls. */
export async function listening(): Promise<{ url: string; hits: string[]; close: () => void }> {
  const hits: string[] = [];
  const canary = createServer((request, response) => {
    if (request.url === '/bare') return response.setHeader('content-type', 'text/html').end('<body>');
    if (request.url !== '/favicon.ico') hits.push(request.url ?? '');
    response.end();
  });
  await new Promise<void>((resolve) => canary.listen(0, '127.0.0.1', resolve));
  return { url: `http://127.0.0.1:${(canary.address() as AddressInfo).port}`, hits, close: () => void canary.close() };
}
