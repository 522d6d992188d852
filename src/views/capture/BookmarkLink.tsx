import { Text } from '@mantine/core'
import { useEffect, useRef } from 'react'
import styles from './capture.module.css'

/** What the bookmark does on a page: it opens the capture page with what is there. It sends nothing by itself. */
const scriptFor = (origin: string): string =>
  `javascript:(()=>{const p=new URLSearchParams({title:document.title,url:location.href,text:String(getSelection()).slice(0,20000)});` +
  `open('${origin}/capture?'+p,'_blank','width=720,height=760')})()`

/** The link to be dragged into the bookmarks of a browser. */
export function BookmarkLink() {
  const link = useRef<HTMLAnchorElement>(null)
  // Set from outside: React takes no address that is a script, for good reasons; this one is ours, and is never pressed here.
  useEffect(() => link.current?.setAttribute('href', scriptFor(window.location.origin)), [])
  return (
    <div className={styles.bookmark}>
      <Text size="sm">
        To keep pages as you read them, drag this into the bookmarks of your browser. Pressed on a page, it brings its
        title, its address and the words that are selected here.
      </Text>
      {/* biome-ignore lint/a11y/useValidAnchor: its address is set above */}
      <a ref={link} className={styles.handle} onClick={(event) => event.preventDefault()} draggable>
        Keep in Folvet
      </a>
    </div>
  )
}
