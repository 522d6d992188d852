import { useIcons } from '../app/late-parts'

/** A badge as it is seen outside the map. */
export function BadgeGlyph({ badge, size }: { badge: string; size: number }) {
  const path = useIcons().path(badge)
  if (!path)
    return (
      <span aria-hidden style={{ fontSize: size * 0.9, lineHeight: `${size}px` }}>
        {badge.startsWith('icon:') ? '?' : badge}
      </span>
    )
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 24 24"
      fill="none"
      stroke="currentColor"
      strokeWidth={2}
      strokeLinecap="round"
      strokeLinejoin="round"
      aria-hidden
    >
      <path d={path} />
    </svg>
  )
}
