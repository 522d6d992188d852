import { relative } from './addresses'
import { Html, html } from './html'

/** What every page of the site has in common. */
export interface Page {
  /** Path from the top of the site. */
  path: string
  title: string
  siteTitle: string
  breadcrumbs: readonly { title: string; address: string }[]
  body: Html
}

const POLICY =
  "default-src 'self'; style-src 'self' 'unsafe-inline'; base-uri 'none'; form-action 'none'; object-src 'none'"

export function writePage(page: Page): string {
  const to = (address: string) => relative(page.path, address)
  const trail = page.breadcrumbs.map((crumb) => html`<li><a href="${to(crumb.address)}">${crumb.title}</a></li>`)
  return html`<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta http-equiv="Content-Security-Policy" content="${new Html(POLICY)}">
<meta name="generator" content="Folvet">
<title>${page.title === page.siteTitle ? page.title : `${page.title} · ${page.siteTitle}`}</title>
<link rel="icon" href="${to('assets/icon.svg')}" type="image/svg+xml">
<link rel="stylesheet" href="${to('assets/site.css')}">
<script defer src="${to('assets/reader.js')}"></script>
</head>
<body data-top="${to('')}">
<a class="skip" href="#text">To the text</a>
<header>
<p class="site-title"><a href="${to('index.html')}">${page.siteTitle}</a></p>
<nav aria-label="Where this is">${trail.length > 0 ? html`<ol class="trail">${trail}<li aria-current="page">${page.title}</li></ol>` : null}</nav>
<div class="search" role="search" hidden><label for="search-words">Search</label><input id="search-words" type="search" autocomplete="off" placeholder="Find in this site"><div id="search-found" role="status"></div></div>
</header>
${page.body}
<footer><p>Made with Folvet</p></footer>
</body>
</html>
`.markup
}
