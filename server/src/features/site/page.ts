import type { SiteSlot } from '@core';
import type { PlacedFile, PlacedFiles } from './placed-files';

const safe = (text: string): string =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;');

/** How visitors look at the page. */
export interface SiteLook {
  readonly dark: boolean;
  /** As for those who ask their system for less motion. */
  readonly lessMotion: boolean;
}

/** A file as the page shows it. */
function shown({ slot, kind, name }: PlacedFile, { lessMotion }: SiteLook): string {
  const src = `/site/file/${slot}${lessMotion ? '?motion=less' : ''}`;
  if (kind === 'video')
    return `<video src="${src}" muted playsinline ${lessMotion ? '' : 'autoplay loop'} aria-label="${safe(name)}"></video>`;
  if (kind === 'element')
    return `<moving-piece src="${src}" ${lessMotion ? '' : 'autoplay'} label="${safe(name)}"></moving-piece>`;
  return `<img src="${src}" alt="${safe(name)}">`;
}

/** The made-up ferry line's page, with what is placed on it. */
export function sitePage(placements: PlacedFiles, look: SiteLook): string {
  const at = (slot: SiteSlot, otherwise: string): string => {
    const placed = placements.find(slot);
    return `<div class="slot slot-${slot}" data-slot="${slot}">${placed ? shown(placed, look) : otherwise}</div>`;
  };
  return `<!doctype html>
<html lang="en" class="${look.dark ? 'dark' : 'light'}">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width">
<title>Lantern Quay Ferries</title>
<link rel="stylesheet" href="/site/site.css">
<script type="module" src="/site/moving-piece.js"></script>
</head>
<body>
<header>
${at('header', '<span class="empty">mark</span>')}
<strong>Lantern Quay Ferries</strong>
<nav><a href="#times">Times</a> <a href="#fares">Fares</a> <a href="#news">News</a></nav>
</header>
<main>
<section class="hero">
${at('hero', '<span class="empty">hero</span>')}
<div>
<h1>Across the bay every twenty minutes</h1>
<p>From the first lantern to the last: boats leave Old Quay and Harbour North from 5:40 until half past midnight.</p>
<a class="ticket" href="#fares">${at('button', '<span class="empty">sign</span>')}<span>Board with one tap</span></a>
</div>
</section>
<section id="times" class="times">
<h2>Next boats</h2>
<table>
<tr><th scope="row">Old Quay</th><td>12:20</td><td>12:40</td><td>13:00</td></tr>
<tr><th scope="row">Harbour North</th><td>12:31</td><td>12:51</td><td>13:11</td></tr>
</table>
</section>
<section id="news" class="mail">
<h2>Quay Letter, as it looks in the mail</h2>
<article>
${at('mail', '<span class="empty">picture of the letter</span>')}
<p>Dear passengers, from Monday the evening boat carries bicycles free of charge. See you on board.</p>
</article>
</section>
</main>
</body>
</html>
`;
}

export const SITE_STYLE = `
:root{font:16px/1.5 system-ui,sans-serif;--paper:#fbf7ee;--ink:#17324d;--line:#d8cfbd;--accent:#c2452d}
.dark{--paper:#12202e;--ink:#eee6d6;--line:#33475a;--accent:#f0b03f}
*{box-sizing:border-box}
body{margin:0;color:var(--ink);background:var(--paper)}
header{display:flex;flex-wrap:wrap;gap:8px 16px;align-items:center;padding:10px 24px;border-bottom:1px solid var(--line)}
nav{display:flex;gap:16px;margin-left:auto}
a{color:inherit}
.slot{display:grid;place-items:center}
.slot img,.slot video,.slot moving-piece{display:block;max-width:100%;height:auto}
.slot-header{width:48px;height:48px}
.slot-header>*{max-height:48px}
.hero{display:grid;grid-template-columns:minmax(0,1fr) minmax(0,1fr);gap:32px;align-items:center;max-width:1080px;padding:32px 24px;margin:auto}
@media (max-width:640px){.hero{grid-template-columns:1fr}}
.slot-hero{min-height:220px}
.slot-hero>*{max-height:420px}
h1{font-size:2rem;line-height:1.15}
.ticket{display:inline-flex;gap:12px;align-items:center;padding:8px 20px 8px 10px;font-weight:600;text-decoration:none;border:2px solid var(--accent);border-radius:12px}
.slot-button{width:44px;height:44px}
.slot-button>*{max-height:44px}
.times,.mail{max-width:1080px;padding:8px 24px 24px;margin:auto}
table{border-collapse:collapse}
th,td{padding:6px 24px 6px 0;text-align:left;border-bottom:1px solid var(--line)}
.mail article{max-width:600px;padding:24px;color:#17324d;background:#fff;border:1px solid var(--line)}
.slot-mail{min-height:120px}
.empty{display:grid;place-items:center;width:100%;height:100%;min-height:44px;padding:4px;font-size:.75rem;border:1px dashed currentcolor}
`;
