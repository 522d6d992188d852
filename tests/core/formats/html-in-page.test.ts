import { expect, test } from 'vitest'
import { readHtmlPage, withHtmlRead } from '../../../src/core/formats/html-in-page'
import { readHtml } from '../../../src/core/formats/html-outline'

test.each([
  ['a page without HTML stands as it stood', '# A < b\n\n- `<br>` c', '# A < b\n\n- `<br>` c'],
  ['code is code', 'A `<br>`<br>\nb', 'A `<br>`\\\n\nb'],
  [
    'links and pictures inside of a paragraph',
    '[x](y) <a href="a b.md">see <img src=p.png alt=P></a>',
    '[x](y) [see ![P](p.png)](<a b.md>)',
  ],
  ['a table', '<table><tr><th>A<th>B<tr><td>1<td>2</table>', '\n| A | B |\n| - | - |\n| 1 | 2 |\n'],
  ['comments and anchors say nothing', '<!-- x -->\n\n<a id="top"></a>\n\nText', '\n\n\n\n\n\nText'],
])('%s', (_, page, read) => {
  expect(withHtmlRead(page).text).toBe(read)
})

const tags = (count: number) => Array.from({ length: count }, (_, i) => `<b x=${i}>`).join('')

test.each([
  ['elements that every block opens again', `<div>${tags(600)}${'<p>x'.repeat(1_000)}`],
  ['tables within tables', `<div>${'x<table>'.repeat(3_000)}`],
  ['elements one inside the other', '<div>'.repeat(10_000)],
  ['tags that never end', '<a "'.repeat(12_000)],
  ['comments that never end', '<!--'.repeat(12_000)],
])('HTML that would keep a parser busy stays as it stands, or is read at once: %s', (_, hostile) => {
  const start = performance.now()
  expect(withHtmlRead(hostile).text).toBeTypeOf('string')
  readHtml(hostile)
  expect(performance.now() - start).toBeLessThan(3_000)
})

test('a whole page is read with its title, and the worst of heads takes no longer than its letters', () => {
  const page =
    '<html><head><title>Dams &amp; weirs</title><style>x</style></head><body><p>One</p><ul><li>Two</li></ul></body></html>'
  expect(readHtmlPage(page).text).toBe('# Dams & weirs\n\nOne\n\n- Two')
  expect(readHtmlPage('<h1>Own</h1><p>One</p>').text).toBe('# Own\n\nOne')
  for (const worst of ['<head', '</head><head ', '<title', '<head></head ']) {
    const begun = performance.now()
    readHtmlPage(worst.repeat(20_000))
    expect([worst, performance.now() - begun < 4_000]).toEqual([worst, true])
  }
})
