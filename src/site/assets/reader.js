// The published site's own script: search, and moving about in the drawn map. A classic script without parts to load
// at first, so that it works from a disk as well as from a server. Everything else works without it.
;(() => {
  const top = document.body.dataset.top || ''

  // ---- Dates: in the words of whoever reads; without this script they are in English. ----------------------------
  const days = new Intl.DateTimeFormat(undefined, { day: 'numeric', month: 'short', year: 'numeric', timeZone: 'UTC' })
  for (const time of document.querySelectorAll('time[datetime]'))
    time.textContent = days.format(new Date(time.dateTime))

  // ---- Search -------------------------------------------------------------------------------------------------
  const loaded = new Map()
  const shards = new Map()
  const pages = new Map()
  let known = null
  let pageSize = 1
  window.folvetSearch = {
    known(names, size) {
      known = new Set(names)
      pageSize = size
    },
    shard: (name, words) => shards.set(name, words),
    entries: (number, rows) => pages.set(number, rows),
  }
  const load = (name) => {
    let promise = loaded.get(name)
    if (!promise) {
      promise = new Promise((resolve, reject) => {
        const script = document.createElement('script')
        script.src = `${top}search/${name}.js`
        script.onload = resolve
        script.onerror = () => {
          loaded.delete(name)
          reject(new Error('The search index could not be read.'))
        }
        document.head.append(script)
      })
      loaded.set(name, promise)
    }
    return promise
  }
  const OPTIONAL_MARKS =
    /(?=\p{Mn})[\p{Script=Inherited}\p{Script=Latin}\p{Script=Greek}\p{Script=Cyrillic}\p{Script=Hebrew}\p{Script=Arabic}](?<![\u3099\u309a])/gu
  const wordsOf = (text) =>
    // As wordsForFinding in src/core/text/folding.ts, which made the index.
    text
      .normalize('NFKD')
      .replace(OPTIONAL_MARKS, '')
      .normalize('NFC')
      .toLowerCase()
      .replaceAll('ß', 'ss')
      .replaceAll('ς', 'σ')
      .match(/[\p{L}\p{N}\p{M}]+/gu) || []
  const shardOf = (word) =>
    [...word]
      .slice(0, 2)
      .map((letter) => letter.codePointAt(0).toString(16))
      .join('-')

  // Numbers of the topics that contain a word beginning so, with a score: a word of the topic's text counts more.
  const find = async (word) => {
    const scores = new Map()
    const names =
      [...word].length > 1
        ? [shardOf(word)].filter((name) => known.has(name))
        : [...known].filter((name) => name === shardOf(word) || name.startsWith(`${shardOf(word)}-`))
    await Promise.all(names.map(load))
    for (const name of names)
      for (const [candidate, [titles, notes]] of Object.entries(shards.get(name) || {})) {
        if (!candidate.startsWith(word)) continue
        const exact = candidate === word ? 2 : 1
        for (const number of titles) scores.set(number, Math.max(scores.get(number) || 0, 10 * exact))
        for (const number of notes) scores.set(number, Math.max(scores.get(number) || 0, exact))
      }
    return scores
  }
  const search = async (text) => {
    await load('shards')
    const found = await Promise.all(wordsOf(text).map(find))
    if (found.length === 0) return null
    const [first, ...rest] = found
    const all = [...first].filter(([number]) => rest.every((scores) => scores.has(number)))
    const ranked = all.map(([number, score]) => [number, rest.reduce((sum, scores) => sum + scores.get(number), score)])
    ranked.sort((a, b) => b[1] - a[1] || a[0] - b[0])
    const best = ranked.slice(0, 30).map(([number]) => number)
    await Promise.all(
      [...new Set(best.map((number) => Math.floor(number / pageSize)))].map((page) => load(`entries-${page}`)),
    )
    return best.map((number) => pages.get(Math.floor(number / pageSize))[number % pageSize])
  }

  const box = document.querySelector('.search')
  const input = document.getElementById('search-words')
  const output = document.getElementById('search-found')
  if (box && input && output) {
    box.hidden = false
    let newest = 0
    input.addEventListener('input', async () => {
      const turn = ++newest
      const rows = await search(input.value).catch(() => [])
      if (turn !== newest) return
      output.replaceChildren()
      if (rows === null) return
      const list = document.createElement(rows.length > 0 ? 'ol' : 'p')
      if (rows.length === 0) list.textContent = 'Nothing found.'
      for (const [title, address, map] of rows) {
        const item = document.createElement('li')
        const link = document.createElement('a')
        const where = document.createElement('span')
        link.href = top + address
        link.textContent = title
        where.className = 'where'
        where.textContent = ` in ${map}`
        link.append(where)
        item.append(link)
        list.append(item)
      }
      output.append(list)
    })
    box.addEventListener('keydown', (event) => {
      if (event.key !== 'Escape') return
      input.value = ''
      output.replaceChildren()
      input.focus()
    })
    output.addEventListener('click', () => output.replaceChildren())
  }

  // ---- The drawn map ------------------------------------------------------------------------------------------
  for (const figure of document.querySelectorAll('.picture')) {
    const svg = figure.querySelector('svg')
    const [x, y, width, height] = svg.getAttribute('viewBox').split(' ').map(Number)
    figure.classList.add('live')
    let view = { x, y, width, height }
    const show = () => svg.setAttribute('viewBox', `${view.x} ${view.y} ${view.width} ${view.height}`)
    const zoom = (factor, cx = view.x + view.width / 2, cy = view.y + view.height / 2) => {
      const limited = Math.min(Math.max(factor, 60 / view.width), (width * 4) / view.width)
      view = {
        x: cx - (cx - view.x) * limited,
        y: cy - (cy - view.y) * limited,
        width: view.width * limited,
        height: view.height * limited,
      }
      show()
    }
    // With a viewBox that keeps its proportions, one unit is this many pixels.
    const scale = () => Math.min(svg.clientWidth / view.width, svg.clientHeight / view.height)
    const pointAt = (event) => {
      const matrix = svg.getScreenCTM()
      return new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse())
    }
    svg.addEventListener(
      'wheel',
      (event) => {
        if (!event.ctrlKey && !event.metaKey) return
        event.preventDefault()
        const point = pointAt(event)
        zoom(Math.exp(event.deltaY / 300), point.x, point.y)
      },
      { passive: false },
    )
    let drag = null
    svg.addEventListener('pointerdown', (event) => {
      drag = { x: event.clientX, y: event.clientY, moved: false }
    })
    window.addEventListener('pointermove', (event) => {
      if (!drag) return
      const dx = event.clientX - drag.x
      const dy = event.clientY - drag.y
      if (!drag.moved && Math.hypot(dx, dy) < 4) return
      const unit = scale()
      view = { ...view, x: view.x - dx / unit, y: view.y - dy / unit }
      drag = { x: event.clientX, y: event.clientY, moved: true }
      show()
    })
    window.addEventListener('pointerup', () => {
      if (drag?.moved) svg.addEventListener('click', (event) => event.preventDefault(), { once: true, capture: true })
      drag = null
    })
    svg.addEventListener('dragstart', (event) => event.preventDefault())
    const tools = document.createElement('div')
    tools.className = 'tools'
    const button = (label, name, act) => {
      const made = document.createElement('button')
      made.type = 'button'
      made.textContent = label
      made.setAttribute('aria-label', name)
      made.addEventListener('click', act)
      tools.append(made)
    }
    button('−', 'Zoom out', () => zoom(1.25))
    button('+', 'Zoom in', () => zoom(0.8))
    button('Fit', 'Fit the map', () => {
      view = { x, y, width, height }
      show()
    })
    figure.append(tools)
  }
})()
