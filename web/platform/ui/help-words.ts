export type HelpPage =
  | 'today'
  | 'students'
  | 'student'
  | 'goal'
  | 'observing'
  | 'incident'
  | 'behavior'
  | 'class'
  | 'board'
  | 'patterns'
  | 'report'
  | 'sharing'
  | 'team'
  | 'reports'
  | 'messages'
  | 'rounds'
  | 'coverage'
  | 'roster'
  | 'school';

/** What each main screen is for, and what to do first: read together, in one go. */
export const helpWords: Record<HelpPage, { about: readonly string[]; first: string }> = {
  today: {
    about: [
      'Today lists the goals that are due, by the part of the day in which you meet each student.',
      'A goal is due when its plan asks for an entry and none has come in for that long.',
    ],
    first: 'choose Observe beside a student. “Go through them” takes everybody who is due, one after the other.',
  },
  students: {
    about: [
      'Your students, with what each of their goals says right now.',
      'No recent data: nothing has come in for longer than the plan allows. Behind the aim line: over the last 20 days the scores lie on the wrong side of the line from baseline to target, by more than chance would bring.',
    ],
    first: 'open the student at the top: those who need a closer look come first.',
  },
  student: {
    about: [
      'Every goal of this student: its graph, the latest figure and what the decision rules say.',
      'The newest entries stand in the margin. The whole report, who sees it and the team are behind the tabs.',
    ],
    first: 'choose Observe to record, or a goal’s name to see all that is behind its figure.',
  },
  goal: {
    about: [
      'The graph shows each day’s figure. A dashed upright line marks a change of support; the dotted line leads from baseline to target; the shaded band is where the trend of the present phase likely runs.',
      'Below it stand the same numbers as tables, who recorded what where, and every entry. “How this is computed” has methods, figures and the data to check them.',
      'A support may have steps (Edit the goal, Phases): while observing one taps which were done, and Fidelity shows it beside what the student did.',
    ],
    first: 'read “What it says” in the margin: it is the graph in words.',
  },
  observing: {
    about: [
      'Tap what you see; Take back undoes the last tap. What you leave alone stays blank: blank is not zero.',
      'Without a connection nothing is lost: it is sent by itself later.',
    ],
    first: 'tap a button of the goal you are working on, then Save.',
  },
  incident: {
    about: [
      'Behavior is what you saw. Antecedent is what came just before, consequence what followed: not a punishment, whatever came next.',
      'Only the behavior is required. Everything else can be added later by correcting the entry.',
    ],
    first: 'tap the behavior, then Save.',
  },
  behavior: {
    about: [
      'How often each target behavior was recorded, when, where and with what before and after it.',
      'A rate needs to know how long somebody watched: counts in an observation window give one. Shares say what tends to come before, not what causes it.',
    ],
    first: 'choose a behavior and dates at the top. Every figure leads to the entries behind it.',
  },
  class: {
    about: [
      'Goals about how much altogether (hours, plants, trays), side by side: how far each student is, what came this week, and when the log is full at the pace of the last 20 school days.',
      'Categories have a column each. “All together” adds up the class.',
    ],
    first: 'choose a group and what is counted; a name leads to the student’s goal.',
  },
  board: {
    about: [
      'Each student says at their own desk how they stand with each step. The board changes by itself; only what needs somebody stands out.',
      'What you mark as seen goes quiet until the student says something new.',
    ],
    first: 'choose the students who wait, and observe them together or mark them as seen.',
  },
  patterns: {
    about: ['What repeats across your students: weeks, antecedents, parts of the day.'],
    first: 'choose a group. “Changed most” compares the last weeks with those before.',
  },
  report: {
    about: [
      'Every entry of this student as sentences, newest first. Readers see the same page, with the fields you chose for them.',
      'A progress report is made from it for a reporting period, and never changes once it is issued.',
    ],
    first: 'use Find or a goal to narrow it down, or Print to take it to a meeting.',
  },
  sharing: {
    about: [
      'The team reads the report here. Anybody else gets a share link: one reader, this report only, until a date.',
      'What each reader sees is a table: numbers, notes, names of adults and so on, for each kind of reader.',
    ],
    first: 'look at “What each reader sees”, then make a share link and send it to its reader.',
  },
  team: {
    about: ['Who works with this student, and what each of them may do: observe, edit goals, share.'],
    first: 'invite somebody by email, or add somebody of the school.',
  },
  reports: {
    about: ['Progress reports of the period that is to be reported now, and files for several students.'],
    first: 'choose To the draft beside a student.',
  },
  messages: {
    about: ['Emails to readers and team members: what waits, what was sent and what came back.'],
    first: 'look at Bounced: an address may need to be corrected.',
  },
  rounds: {
    about: ['A round goes through several students and goals, one after the other or side by side.'],
    first: 'make a round for a class or a part of the day. It comes up on Today.',
  },
  coverage: {
    about: ['Which goals were observed as often as their plan asks, and who recorded how much.'],
    first: 'look at the top of the list: what has waited longest.',
  },
  roster: {
    about: ['All students of the school. Archiving takes a student off every list; nothing that was recorded is lost.'],
    first: 'add a student with a case manager: their page is there at once.',
  },
  school: {
    about: ['School days, closures, groups, locations and the timetable. Figures that count school days use them.'],
    first: 'set the school days and closures, then the locations and the timetable.',
  },
};
