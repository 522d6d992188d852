import { Button, Group, Paper, Stack, Text } from '@mantine/core'
import { counted } from '../../core/text/counted'
import { useSession } from '../sync/use-session'
import type { Clutter, SmallPicture } from './ledger-schema'
import styles from './links.module.css'

interface Props {
  clutter: Clutter
  isBusy: boolean
  change(command: string, args: object): void
}

/** How much the lines of cross-links cross, and what few of them made quiet would change, in words and pictures. */
export function ClutterBand({ clutter, isBusy, change }: Props) {
  const session = useSession()
  const { crossings, maps, quiet, removed, picture } = clutter
  if (crossings === 0) return <Text>No lines of cross-links cross one another.</Text>
  const where = maps.length === 1 ? `on ${session.titleOf(maps[0]!.map)}` : `on ${counted(maps.length, 'map', 'maps')}`
  return (
    <Paper withBorder p="md" component="section" aria-label="Clutter">
      <Group align="center" gap="xl">
        <Stack gap="sm" className={styles.clutterWords}>
          <Text fw={600}>
            {counted(crossings, 'crossing', 'crossings')} {where}.
          </Text>
          <Text>
            {counted(quiet.length, 'link', 'links')} made quiet {quiet.length === 1 ? 'takes' : 'take'} {removed} of{' '}
            {crossings === 1 ? 'it' : 'them'} away. Quiet links stay: they are shown as a sign at both ends.
          </Text>
          {session.mayEdit && (
            <div>
              <Button loading={isBusy} onClick={() => change('draw-links', { crosslinks: quiet, drawn: 'quiet' })}>
                Make {quiet.length === 1 ? 'it' : `these ${quiet.length}`} quiet
              </Button>
            </div>
          )}
        </Stack>
        {picture && <Beside picture={picture} quiet={new Set(quiet)} title={session.titleOf(picture.map)} />}
      </Group>
    </Paper>
  )
}

/** The map on which most lines cross, as it is and as it would be. */
function Beside({ picture, quiet, title }: { picture: SmallPicture; quiet: ReadonlySet<string>; title: string }) {
  return (
    <Group gap="md" className={styles.pictures}>
      <Small picture={picture} hidden={new Set()} name={`${title} now`} />
      <Small picture={picture} hidden={quiet} name={`${title} afterwards`} />
    </Group>
  )
}

function Small({ picture, hidden, name }: { picture: SmallPicture; hidden: ReadonlySet<string>; name: string }) {
  const { width, height, boxes, lines } = picture
  return (
    <figure className={styles.picture}>
      <svg viewBox={`0 0 ${width} ${height}`} role="img" aria-label={name}>
        {boxes.map(([x, y, boxWidth, boxHeight]) => (
          <rect key={`${x} ${y}`} x={x} y={y} width={boxWidth} height={boxHeight} className={styles.box} />
        ))}
        {lines
          .filter(({ link }) => !hidden.has(link))
          .map(({ link, corners }) => (
            <polyline key={link} points={corners.join(' ')} className={styles.line} vectorEffect="non-scaling-stroke" />
          ))}
      </svg>
      <figcaption>{name}</figcaption>
    </figure>
  )
}
