import {
  Alert,
  Anchor,
  Button,
  Center,
  Group,
  Loader,
  Select,
  Stack,
  Text,
  Textarea,
  TextInput,
  Title,
} from '@mantine/core'
import { useRef, useState } from 'react'
import { v7 as uuid } from 'uuid'
import { z } from 'zod'
import type { TopicId } from '../../core/records/ids'
import { MAX_TITLE } from '../../core/records/text'
import { MAX_ADDRESS } from '../../core/records/weblink'
import { ask, tellTrouble, twice } from '../app/api'
import { useCollections } from '../app/collections'
import { Providers } from '../app/Providers'
import { usePerson } from '../app/person'
import { FindDialog } from '../dialogs/FindDialog'
import { PageFrame } from '../frame/PageFrame'
import { BookmarkLink } from './BookmarkLink'

const LATEST = 'folvet-clipped-into'

export default function CapturePage() {
  return (
    <Providers>
      <PageFrame trail={[{ name: 'Keep from the web', address: '/capture' }]}>
        <WhenKnown />
      </PageFrame>
    </Providers>
  )
}

function WhenKnown() {
  const person = usePerson()
  if (person === undefined)
    return (
      <Center>
        <Loader aria-label="Opening Folvet" />
      </Center>
    )
  return person ? (
    <Capture />
  ) : (
    <Alert color="ember">
      Nobody is signed in here. <Anchor href="/">Begin, or sign in</Anchor>, then press the bookmark again.
    </Alert>
  )
}

/** So many letters of a page are kept as its words: what is longer is better attached as a file. */
const MOST_QUOTED = 20_000

/** What the bookmark has brought along: all of it comes from a page that anybody may have written. */
function broughtAlong() {
  const { searchParams } = new URL(window.location.href)
  const part = (name: string, most: number) => (searchParams.get(name) ?? '').slice(0, most)
  return { title: part('title', 500), address: part('url', 2_000), quote: part('text', 20_000) }
}

type Place = { collection: string; topic: { id: TopicId; text: string } | null }

/** Keeps a page of the web: its title, address and the words that were selected, in the drawer of a collection or below a topic. */
function Capture() {
  const { data: collections } = useCollections()
  const writable = (collections ?? []).filter(
    ({ role, trashed, homeMap }) => !trashed && homeMap !== null && (role === 'owner' || role === 'editor'),
  )
  const brought = useRef(broughtAlong())
  const [text, setText] = useState(brought.current.title)
  const [address, setAddress] = useState(brought.current.address)
  const [quote, setQuote] = useState(brought.current.quote)
  const [chosen, setChosen] = useState<Place | null>(null)
  const [isPicking, setPicking] = useState(false)
  const [kept, setKept] = useState<string | null>(null)
  const [isKeeping, setKeeping] = useState(false)
  const id = useRef(uuid())
  const latest = localStorage.getItem(LATEST)
  const place = chosen ?? {
    collection: writable.find((each) => each.id === latest)?.id ?? writable[0]?.id ?? '',
    topic: null,
  }
  const collection = writable.find((each) => each.id === place.collection)
  const keep = async () => {
    if (!collection) return
    const at = place.topic ? { topic: place.topic.id } : { drawer: collection.homeMap }
    const body = { id: id.current, args: { at, text, note: '', quote, address } }
    setKeeping(true)
    await twice(() =>
      ask(z.unknown(), `/api/collections/${collection.id}/commands/keep-clipping`, { method: 'POST', body }),
    )
      .then(() => {
        localStorage.setItem(LATEST, collection.id)
        setKept(place.topic?.text || 'the drawer To place')
        id.current = uuid()
      })
      .catch(tellTrouble)
    setKeeping(false)
  }
  if (!collections)
    return (
      <Center>
        <Loader aria-label="Looking for your collections" />
      </Center>
    )
  if (writable.length === 0)
    return (
      <Alert>
        You have no collection with a map yet. <Anchor href="/">Make one first.</Anchor>
      </Alert>
    )
  if (kept !== null && collection)
    return (
      <Stack align="flex-start">
        <Title order={1} size="h2">
          It is kept
        </Title>
        <Text>
          It is in {kept}, in {collection.title}. You can close this window.
        </Text>
        <Group>
          <Button component="a" href={`/c/${collection.id}/m/${collection.homeMap}`}>
            Open {collection.title}
          </Button>
          <Button variant="default" onClick={() => setKept(null)}>
            Keep something else
          </Button>
        </Group>
      </Stack>
    )
  return (
    <Stack maw={640}>
      <Title order={1} size="h2">
        Keep from the web
      </Title>
      <TextInput
        label="What it is called"
        value={text}
        maxLength={MAX_TITLE}
        onChange={(event) => setText(event.currentTarget.value)}
      />
      <TextInput
        label="Address"
        placeholder="https://example.org/page"
        value={address}
        maxLength={MAX_ADDRESS}
        onChange={(event) => setAddress(event.currentTarget.value)}
      />
      <Textarea
        label="Words of the page"
        autosize
        minRows={3}
        maxRows={14}
        maxLength={MOST_QUOTED}
        value={quote}
        onChange={(event) => setQuote(event.currentTarget.value)}
      />
      <Group align="flex-end">
        <Select
          label="In which collection"
          allowDeselect={false}
          data={writable.map(({ id: value, title }) => ({ value, label: title }))}
          value={place.collection}
          onChange={(value) => value && setChosen({ collection: value, topic: null })}
        />
        <Button variant="default" onClick={() => setPicking(true)}>
          {place.topic ? `Below ${place.topic.text.slice(0, 40) || 'Untitled'}` : 'In the drawer To place …'}
        </Button>
        {place.topic && (
          <Anchor
            component="button"
            type="button"
            onClick={() => setChosen({ collection: place.collection, topic: null })}
          >
            In the drawer instead
          </Anchor>
        )}
      </Group>
      <Group>
        <Button
          loading={isKeeping}
          disabled={text.trim() === '' && address.trim() === '' && quote.trim() === ''}
          onClick={() => void keep()}
        >
          Keep
        </Button>
      </Group>
      <BookmarkLink />
      {isPicking && collection && (
        <FindDialog
          collection={collection.id}
          title="Below which topic?"
          kinds={['topic']}
          onTake={(found) => {
            setPicking(false)
            if (found.kind === 'topic')
              setChosen({ collection: collection.id, topic: { id: found.id, text: found.text } })
          }}
          onClose={() => setPicking(false)}
        />
      )}
    </Stack>
  )
}
