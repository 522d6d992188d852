import { expect, test } from 'vitest'
import { readHtmlPage, withHtmlRead } from '../../../src/core/formats/html-in-page'
import { readHtml } from '../../../src/core/formats/html-outline'
import { type OutlineItem, outlineItem } from '../../../src/core/formats/outline'
import { readDocument } from '../../../src/core/formats/read-text'

test.each([
  ['a page without HTML stands as it stood', '# A < b\n\n- `<br>` c', '# A < b\n\n- `<br>` c'],
  ['code is code', 'A `<br>`<br>\nb', 'A `<br>`\\\n\nb'],
  [
    'links and pictures inside of a paragraph',
    '[x](y) <a href="a b.md">see <img src=p.png alt=P></a>',
    '[x](y) [see ![P](p.png)](<a b.md>)',
  ],
  ['a table', '<table><tr><th>A<th>B<tr><td>1<td>2</table>', '\n| A | B |\n| - | - |\n| 1 | 2 |\n'],
  ['comments and nameless anchors say nothing', '<!-- x -->\n\n<a></a>\n\nText', '\n\n\n\n\n\nText'],
])('%s', (_, page, read) => {
  expect(withHtmlRead(page).text).toBe(read)
})

test('names of places are those of what stands there, or comes next, and no text of theirs stays', () => {
  const page = `<a id="top"></a>

# Log

* [Rotate](#rotate)

<a name='rotate'></a><a id="turn*it*"></a>
## Rotate them

<a id="why"></a>Because they grow.

- <span id="small">Small</span> ones too

<h3 id="howto">How</h3>

<p id="last">Once a day.</p>

<a id="end"></a>`
  const names: Record<string, string[]> = {}
  const tell = ({ text, anchors = [], children, note }: OutlineItem): void => {
    names[text] = anchors
    expect(text + note).not.toMatch(/[\uFDD0\uFDD1]/)
    children.forEach(tell)
  }
  readDocument(page, 'log.md').items.forEach(tell)
  expect(names).toEqual({
    Log: ['top'],
    Rotate: [],
    'Rotate them': ['rotate', 'turn*it*', 'why'],
    'Small ones too': ['small'],
    How: ['howto', 'last', 'end'],
  })
  // What looks like such a mark, and is none of ours, is text like any other.
  const foreign = '# A \uFDD0zzzzzz-1\uFDD1 b\n\n<a id="x"></a>\n\nText'
  for (const mark of ['zzzzzzz', '', '-', '1-'.repeat(200_000)])
    expect(readDocument(`# A &#xFDD0;${mark}&#xFDD1;\n\n<a id="x"></a>b`, 'a.md').items[0]?.anchors).toEqual(['x'])
  expect(readDocument(foreign, 'a.md').items[0]).toEqual({ ...outlineItem('A \uFDD0zzzzzz-1\uFDD1 b'), note: 'Text' })
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
