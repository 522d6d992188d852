import { Menu } from '@mantine/core'
import { RichTextEditor } from '@mantine/tiptap'
import { IconTable } from '@tabler/icons-react'
import { type Editor, useEditorState } from '@tiptap/react'

/** Makes a table, or alters the one in which one writes. */
export function TableMenu({ editor }: { editor: Editor }) {
  const isInTable = useEditorState({ editor, selector: ({ editor: now }) => now.isActive('table') })
  const run = () => editor.chain().focus()
  if (!isInTable)
    return (
      <RichTextEditor.Control
        aria-label="Insert a table"
        title="Insert a table"
        onClick={() => run().insertTable({ rows: 3, cols: 3, withHeaderRow: true }).run()}
      >
        <IconTable size={16} stroke={1.5} />
      </RichTextEditor.Control>
    )
  return (
    <Menu position="bottom-start" transitionProps={{ duration: 0 }}>
      <Menu.Target>
        <RichTextEditor.Control aria-label="Alter the table" title="Alter the table" active>
          <IconTable size={16} stroke={1.5} />
        </RichTextEditor.Control>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Item onClick={() => run().addRowAfter().run()}>Row below</Menu.Item>
        <Menu.Item onClick={() => run().addColumnAfter().run()}>Column to the right</Menu.Item>
        <Menu.Item onClick={() => run().deleteRow().run()}>Remove this row</Menu.Item>
        <Menu.Item onClick={() => run().deleteColumn().run()}>Remove this column</Menu.Item>
        <Menu.Item onClick={() => run().deleteTable().run()}>Remove the table</Menu.Item>
      </Menu.Dropdown>
    </Menu>
  )
}
