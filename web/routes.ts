import { index, layout, type RouteConfig, route } from '@react-router/dev/routes';

export default [
  route('sign-in', 'account/sign-in.tsx'),
  route('read/:token', 'report/read.tsx'),
  layout('ui/shell.tsx', [
    index('students/home.tsx'),
    route('account', 'account/account.tsx'),
    route('sign-out', 'account/sign-out.ts'),
    route('finder', 'ui/finder-entries.ts'),
    route('school', 'school/school.tsx'),
    route('roster', 'roster/roster.tsx'),
    route('roster/new', 'roster/new-student.tsx'),
    route('students', 'students/students.tsx'),
    route('students/:studentId/edit', 'roster/edit-student.tsx'),
    route('students/:studentId', 'goals/goals.tsx'),
    route('students/:studentId/report', 'report/report.tsx'),
    route('students/:studentId/ways-in', 'ways-in/ways-in.tsx'),
    route('students/:studentId/observe', 'observe/observe.tsx'),
    route('students/:studentId/goals', 'goals/arrange.tsx'),
    route('students/:studentId/goals/new', 'goals/new-goal.tsx'),
    route('students/:studentId/goals/:goalId', 'goals/goal.tsx'),
    route('students/:studentId/goals/:goalId/edit', 'goals/edit-goal.tsx'),
    route('students/:studentId/entries/:entryId', 'report/entry.tsx'),
  ]),
  route('preferences', 'account/preferences.ts'),
  route('*', 'ui/unknown.tsx'),
] satisfies RouteConfig;
