import { Node } from '@tiptap/core'
import { readOwnAddress } from '../../core/formats/own-address'

/** A picture of the collection inside a note. `address` says where a file of it is had. */
export const NotePicture = Node.create<{ address(file: string): string }>({
  name: 'notePicture',
  group: 'inline',
  inline: true,
  atom: true,
  draggable: true,
  addOptions: () => ({ address: () => '' }),
  addAttributes: () => ({ src: { default: '' }, alt: { default: '' }, title: { default: null } }),
  parseHTML: () => [{ tag: 'img[data-own]' }],
  renderHTML({ node }) {
    const own = readOwnAddress(String(node.attrs.src))
    return [
      'img',
      { 'data-own': '', src: own?.kind === 'file' ? this.options.address(own.id) : '', alt: node.attrs.alt },
    ]
  },
})
