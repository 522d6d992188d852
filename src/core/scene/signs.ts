import type { Sign } from '../layout/boxes'
import type { TaskState } from '../records/dates'
import { counted } from '../text/counted'

/** Outlines from the Tabler icon set (MIT), 24 × 24, for the signs at the end of a topic. */
export const SIGN_PATHS: Record<Sign, string> = {
  note: 'M13 20l7 -7M13 20v-6a1 1 0 0 1 1 -1h6v-7a2 2 0 0 0 -2 -2h-12a2 2 0 0 0 -2 2v12a2 2 0 0 0 2 2h7',
  file: 'M15 7l-6.5 6.5a1.5 1.5 0 0 0 3 3l6.5 -6.5a3 3 0 0 0 -6 -6l-6.5 6.5a4.5 4.5 0 0 0 9 9l6.5 -6.5',
  web: 'M3 12a9 9 0 1 0 18 0a9 9 0 0 0 -18 0M3.6 9h16.8M3.6 15h16.8M11.5 3a17 17 0 0 0 0 18M12.5 3a17 17 0 0 1 0 18',
  open: 'M5 7a2 2 0 0 1 2 -2h10a2 2 0 0 1 2 2v10a2 2 0 0 1 -2 2h-10a2 2 0 0 1 -2 -2z',
  begun: 'M5 7a2 2 0 0 1 2 -2h10a2 2 0 0 1 2 2v10a2 2 0 0 1 -2 2h-10a2 2 0 0 1 -2 -2zM8.5 12h7',
  done: 'M5 7a2 2 0 0 1 2 -2h10a2 2 0 0 1 2 2v10a2 2 0 0 1 -2 2h-10a2 2 0 0 1 -2 -2zM8.5 12l2.5 2.5l4.5 -5',
  comment: 'M8 9h8M8 13h6M18 4a3 3 0 0 1 3 3v8a3 3 0 0 1 -3 3h-5l-5 3v-3h-2a3 3 0 0 1 -3 -3v-8a3 3 0 0 1 3 -3h12z',
  gathers: 'M12 3v9M5 4l5 8M19 4l-5 8M4 16h16M7 20h10',
  link: 'M9 15l6 -6M11 6l.463 -.536a5 5 0 0 1 7.071 7.072l-.534 .464M13 18l-.397 .534a5.068 5.068 0 0 1 -7.127 0a4.972 4.972 0 0 1 0 -7.071l.524 -.463',
}

/** The states of a task as people read them. */
export const TASK_NAMES: Record<TaskState, string> = { open: 'to do', begun: 'begun', done: 'done' }

/** Whether a sign tells how far a task is. */
export const isTask = (sign: Sign): sign is TaskState => sign in TASK_NAMES

/** What a sign says to somebody who cannot see it, or hovers over it. */
export function signName(sign: Sign, count: number, isLate = false): string {
  switch (sign) {
    case 'note':
      return 'Note'
    case 'file':
      return counted(count, 'file', 'files')
    case 'web':
      return counted(count, 'web link', 'web links')
    case 'link':
      return counted(count, 'cross-link', 'cross-links')
    case 'comment':
      return counted(count, 'open comment', 'open comments')
    case 'gathers':
      return 'Gathered list'
    case 'open':
    case 'begun':
    case 'done':
      return `Task ${TASK_NAMES[sign]}${isLate ? ', overdue' : ''}`
    default:
      return sign satisfies never
  }
}
