const SPECIAL = /[&<>"']/

/** Text as it stands in markup, between elements or in an attribute within quotes. Most texts are returned as they are. */
export function escapeMarkup(text: string): string {
  if (!SPECIAL.test(text)) return text
  return text
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;')
    .replaceAll('"', '&quot;')
    .replaceAll("'", '&#39;')
}
