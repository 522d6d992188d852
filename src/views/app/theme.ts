import { createTheme, type MantineColorsTuple } from '@mantine/core'

const spruce: MantineColorsTuple = [
  '#e2efec',
  '#c9e2dd',
  '#a3cdc5',
  '#7ab7ac',
  '#57a396',
  '#3f9485',
  '#2c8274',
  '#1f6f63',
  '#185a50',
  '#10443c',
]
const ember: MantineColorsTuple = [
  '#fcece6',
  '#f5d3c7',
  '#eaae98',
  '#e08a69',
  '#d66d45',
  '#cc5e38',
  '#c4532f',
  '#a8431f',
  '#8a3618',
  '#6c2910',
]

/** Greys of the dark scheme, from text to the deepest ground. */
const dark: MantineColorsTuple = [
  '#e8e6de',
  '#c9ccca',
  '#a3afb5',
  '#7f8b92',
  '#5a676e',
  '#38434a',
  '#252d32',
  '#1e2529',
  '#161b1e',
  '#101416',
]

/** "Paper and spruce" for Mantine; the tones themselves stand in core/scene/scene.css. */
export const theme = createTheme({
  colors: { spruce, ember, dark },
  primaryColor: 'spruce',
  primaryShade: 7,
  fontFamily: 'var(--interface-font)',
  headings: { fontFamily: 'var(--interface-font)', fontWeight: '600' },
  defaultRadius: 6,
  fontSizes: { xs: '13px', sm: '14px', md: '16px', lg: '18px', xl: '21px' },
  cursorType: 'pointer',
  autoContrast: true,
  components: {
    // A link is known by more than its tone.
    Anchor: { defaultProps: { underline: 'always' } },
    Badge: { defaultProps: { tt: 'none' } },
    // What turns while one waits is named, so it is something.
    Loader: { defaultProps: { role: 'img' } },
    Notification: { defaultProps: { closeButtonProps: { 'aria-label': 'Dismiss' } } },
    // A menu that a key opens is not closed by that same key.
    Menu: { defaultProps: { clickOutsideEvents: ['mousedown', 'touchstart'] } },
    // The head of a dialog is no banner of the page.
    Modal: {
      defaultProps: { closeButtonProps: { 'aria-label': 'Close' }, attributes: { header: { role: 'none' } } },
    },
  },
})
