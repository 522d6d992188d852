import type { LayoutKind, NumberingScheme } from '../records/layout'

/** A beginning for a kind of work. */
export interface Template {
  id: string
  name: string
  /** What it is good for, in a line. */
  use: string
  layout: LayoutKind
  numbering: NumberingScheme | null
  /** Indented text without the root. A line may end with `@+14`: a date so many days after the day of making. */
  text: string
}

const template = (
  id: string,
  name: string,
  use: string,
  text: string,
  shape: { layout?: LayoutKind; numbering?: NumberingScheme } = {},
): Template => ({ id, name, use, layout: shape.layout ?? 'both', numbering: shape.numbering ?? null, text })

/** Templates of our own, for the work that people do here. */
export const TEMPLATES: readonly Template[] = [
  template(
    'reading-notes',
    'Reading notes',
    'One source: what it says, how it shows it, what you make of it',
    `Source
  Author and year
  Where to find it
  Read up to page
What it says
  Main claim
  Reasons given
How it shows it
  Method
  Examples
Words to keep
  Quotation with its page
What I make of it
  Agrees with
  Speaks against
  To look up`,
  ),
  template(
    'procedure',
    'Procedure manual',
    'Steps in order, with who, what for and what to do when it goes wrong',
    `Purpose
  What is better when this is done
Who does it
  Needs to know
  Needs to have signed
What you take along
Steps
  Before you begin
  First step
  Second step
  When you are done
When it goes wrong
  Stop and call
  Try again
Where it is written down`,
    { layout: 'right', numbering: 'decimal' },
  ),
  template(
    'decision',
    'Decision',
    'A question, the ways to answer it, and why one was chosen',
    `Question
  Who decides, and until when
What matters
  Must
  Should
First way
  For it
  Against it
  Costs
Second way
  For it
  Against it
  Costs
Decided
  Because
  Looked at again on`,
  ),
  template(
    'season-plan',
    'Season plan',
    'What comes when, on a scale of days',
    `Plan and permits @+0
  Ask for permits
  Tell the neighbours
Get ready @+14
  Check tools
  Find helpers
First work days @+35
  Marking out
  Transport
Main work @+60
Look back half way @+90
  What runs late
Finish and clear up @+130
Report @+150`,
    { layout: 'time' },
  ),
  template(
    'agenda',
    'Agenda',
    'A meeting: before, during, and what follows from it',
    `Before
  Who comes
  To be read
Points
  First point
    What we want from it
    Minutes it may take
  Second point
Decided
Who does what until when
Next time`,
    { layout: 'right', numbering: 'turns' },
  ),
  template(
    'project',
    'Project',
    'Aim, parts, people, money and risks on one page',
    `Aim
  How we will know that it is reached
Not part of it
Parts
  First part
  Second part
People
  Leads it
  Takes part
  Must be asked
Money
  Have
  Need
Risks
  What could happen
  What we do then
Dates
  Begins @+0
  Half way @+60
  Ends @+120`,
  ),
  template(
    'essay',
    'Essay',
    'A question, a thesis, and the way from one to the other',
    `Question
Thesis
Beginning
  Why it matters
  What others say
First argument
  Reason
  Evidence
  Objection and answer
Second argument
  Reason
  Evidence
  Objection and answer
End
  What follows from it
Sources`,
    { layout: 'right', numbering: 'sections' },
  ),
  template(
    'weekly-review',
    'Weekly review',
    'What was, what is open, what comes',
    `Done
Not done
  Drop
  Move to next week
Waiting for others
Learned
Next week
  The three that count
  Appointments @+7
Someday`,
  ),
  template(
    'numbered-notes',
    'Numbered notes',
    'One thought a note, each with a number that it keeps',
    `First thought
  Follows from it
    And from that
  Speaks against it
Second thought
Where to go on`,
    { layout: 'indented', numbering: 'turns' },
  ),
  template(
    'comparison',
    'Comparison',
    'Two or three things side by side, under the same headings',
    `First
  What it is
  Good at
  Weak at
  Costs
Second
  What it is
  Good at
  Weak at
  Costs
Third
  What it is
  Good at
  Weak at
  Costs
Which for what`,
    { layout: 'down' },
  ),
  template(
    'strengths',
    'Strengths and weaknesses',
    'Four fields: what helps and what hinders, inside and outside',
    `Strengths, within us
Weaknesses, within us
Chances, around us
Dangers, around us`,
    { layout: 'around' },
  ),
  template(
    'lesson',
    'Lesson',
    'Aims, the course of the lesson, and how it went',
    `Aims
  They know
  They can
What they bring along
Material
Course
  Begin
    Minutes
  Work out
    Minutes
  Practise
    Minutes
  Close
    Minutes
For the quick ones
For those who need more time
How it went`,
    { layout: 'right' },
  ),
]
