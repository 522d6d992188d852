const swallow = (event: Event) => {
  event.preventDefault()
  event.stopPropagation()
}

/** The press that ends a drag opens and chooses nothing. For a handler of `pointerup`: the click that follows it at once is meant. */
export function swallowClick(): void {
  window.addEventListener('click', swallow, { capture: true, once: true })
  setTimeout(() => window.removeEventListener('click', swallow, { capture: true }))
}
