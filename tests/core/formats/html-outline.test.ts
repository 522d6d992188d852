import { describe, expect, test } from 'vitest'
import { readHtml } from '../../../src/core/formats/html-outline'
import { writeIndentedText } from '../../../src/core/formats/indented-text'
import { outlineItem } from '../../../src/core/formats/outline'

const read = (html: string) => writeIndentedText(readHtml(html) ?? [])

describe('HTML from the clipboard', () => {
  test('keeps nested lists, also where a list stands beside its entry', () => {
    const expected = '- Spring\n  - Sow peas\n  - Prune\n- Summer'
    expect(read('<ul><li>Spring<ul><li>Sow <b>peas</b></li><li>Prune</li></ul></li><li>Summer</li></ul>')).toBe(
      expected,
    )
    expect(read('<ul><li>Spring</li><ul><li>Sow peas</li><li>Prune</li></ul><li>Summer</li></ul>')).toBe(expected)
  })

  test('hangs on headings what stands beneath them', () => {
    expect(read('<h1>Garden</h1><p>All of it.</p><h2>Spring</h2><ol><li>Sow</li></ol><h1>Field</h1>')).toBe(
      '- Garden\n  - All of it.\n  - Spring\n    - Sow\n- Field',
    )
  })

  test('takes the levels of a word processor as they are written into its styles', () => {
    const paragraph = (level: number, text: string) =>
      `<p class=x style='mso-list:l0 level${level} lfo1'><span>·&nbsp; </span>${text}</p>`
    expect(read(paragraph(1, 'Spring') + paragraph(2, 'Sow') + paragraph(3, 'Early') + paragraph(1, 'Summer'))).toBe(
      '- Spring\n  - Sow\n    - Early\n- Summer',
    )
  })

  test('turns a table into a topic for each column', () => {
    expect(
      read(
        '<table><thead><tr><th>Bed</th><th>Crop</th></tr></thead><tr><td>North</td><td>Leek</td></tr><tr><td>South</td><td></td></tr></table>',
      ),
    ).toBe('- Bed\n  - North\n  - South\n- Crop\n  - Leek')
  })

  test('keeps links and drops what could run', () => {
    const items = readHtml(
      '<ul><li onclick="x()"><a href="https://example.org/peas">Peas</a><script>alert(1)</script></li></ul>',
    )
    const links = [{ address: 'https://example.org/peas', title: 'Peas' }]
    expect(items).toEqual([{ ...outlineItem('Peas'), links }])
  })

  test('leaves text without structure to whoever reads plain text', () => {
    expect(readHtml('<p>Just a line</p>')).toBeNull()
    expect(readHtml('')).toBeNull()
  })

  test('stands a page of a megabyte and lists nested deeper than anybody reads', () => {
    expect(readHtml(`<ul>${'<li>word</li>'.repeat(60_000)}</ul>`)).toHaveLength(60_000)
    expect(readHtml(`${'<ul><li>deep '.repeat(200)}end`)).not.toBeNull()
    expect(readHtml(`${'<ul><li>deep '.repeat(100_000)}end`)).toBeNull()
  })
})
