import type { Nodes } from 'mdast'
import { gfmStrikethroughToMarkdown } from 'mdast-util-gfm-strikethrough'
import { gfmTableToMarkdown } from 'mdast-util-gfm-table'
import { gfmTaskListItemToMarkdown } from 'mdast-util-gfm-task-list-item'
import { toMarkdown } from 'mdast-util-to-markdown'

/** Writes a tree as CommonMark in one style: `-` for lists, `*` for emphasis, fenced code. Ends with a line break. */
export const writeCommonMark = (tree: Nodes): string =>
  toMarkdown(tree, {
    extensions: [gfmStrikethroughToMarkdown(), gfmTableToMarkdown(), gfmTaskListItemToMarkdown()],
    bullet: '-',
    emphasis: '*',
    rule: '-',
    listItemIndent: 'one',
    fences: true,
  })
