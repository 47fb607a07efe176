import type { Incident } from '../entries/incidents/incident';

export interface ObserverCount {
  observer: string;
  n: number;
}

/** Who noted how many, the most first; incidents that do not say who are left out. */
export function byObserver(incidents: readonly Pick<Incident, 'observer'>[]): ObserverCount[] {
  const counts = new Map<string, number>();
  for (const { observer } of incidents) if (observer !== null) counts.set(observer, (counts.get(observer) ?? 0) + 1);
  return [...counts]
    .map(([observer, n]) => ({ observer, n }))
    .sort((a, b) => b.n - a.n || a.observer.localeCompare(b.observer));
}
