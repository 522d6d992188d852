import { Text } from '@mantine/core'
import { IconFileImport, IconPlus, IconSparkles } from '@tabler/icons-react'
import { useEffect, useState } from 'react'
import { makeMap } from '../../core/commands/maps'
import { makeMapFrom } from '../../core/commands/use-template'
import { foldForFinding, wordsForFinding } from '../../core/text/folding'
import { FindField } from '../app/fields/FindField'
import { fetchAhead, openInPlace } from '../app/in-place'
import { today } from '../app/when'
import { useSession } from '../sync/use-session'
import { useTemplates } from '../sync/use-templates'
import styles from './beginning.module.css'
import ImportPanel from './ImportPanel'
import { Plate, TemplatePicture } from './Plate'

/** From so many templates on they can be narrowed down by words. */
const MANY = 8

/** All the ways to begin a map, chosen by eye. */
export default function Gallery() {
  const session = useSession()
  const templates = useTemplates()
  const [words, setWords] = useState('')
  const [imports, setImports] = useState(false)
  const collection = session.collection.id

  const begin = (command: Parameters<typeof session.run>[0], how: 'root' | 'wish') => {
    const root = session.records.get('topic', session.run(command)?.[0] ?? null)
    if (root) void openInPlace(session, root.place.map, how)
  }
  useEffect(fetchAhead, [])
  const empty = (how: 'root' | 'wish') =>
    begin((records, newIds) => makeMap(records, { collection, title: '' }, newIds), how)
  const wanted = wordsForFinding(words)
  const shown = templates.filter(({ name, use }) =>
    wanted.every((word) => foldForFinding(`${name} ${use}`).includes(word)),
  )
  if (imports) return <ImportPanel onBack={() => setImports(false)} />
  return (
    <div className={styles.gallery}>
      {templates.length >= MANY && (
        <FindField
          label="Find a template"
          placeholder="Find a template by what it is for"
          words={words}
          setWords={setWords}
          maw={360}
        />
      )}
      <div className={styles.plates}>
        {wanted.length === 0 && (
          <>
            <Plate name="Empty" use="One topic in the middle, ready to be written" onChoose={() => empty('root')}>
              <IconPlus size={36} stroke={1.4} />
            </Plate>
            <Plate
              name="From a list, a page or files"
              use="Pasted, dropped or chosen; seen before it is made"
              onChoose={() => setImports(true)}
            >
              <IconFileImport size={36} stroke={1.4} />
            </Plate>
            <Plate
              name="From a wish"
              use="Say what it is for, and take the branches you like"
              onChoose={() => empty('wish')}
            >
              <IconSparkles size={36} stroke={1.4} />
            </Plate>
          </>
        )}
        {shown.map(({ id, name, use }) => (
          <Plate
            key={id}
            name={name}
            use={use}
            onChoose={() =>
              begin(
                (records, newIds) =>
                  makeMapFrom(records, { collection, title: name, template: id, today: today() }, newIds),
                'root',
              )
            }
          >
            <TemplatePicture template={id} name={name} />
          </Plate>
        ))}
      </div>
      {shown.length === 0 && wanted.length > 0 && <Text c="dimmed">No template has these words.</Text>}
    </div>
  )
}
