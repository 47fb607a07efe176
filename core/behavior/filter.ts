import { type IsoDate, mondayOf, weekday } from '../calendar/iso-date';
import { partFinder, type Timetable } from '../calendar/timetable';
import type { Incident } from '../entries/incidents/incident';
import { quarterOf } from './when';

/** Which incidents stand behind a figure. What is not said does not matter. */
export interface IncidentFilter {
  behavior?: string | undefined;
  antecedent?: string | undefined;
  consequence?: string | undefined;
  location?: string | undefined;
  observer?: string | undefined;
  function?: string | undefined;
  intensity?: number | undefined;
  from?: IsoDate | undefined;
  to?: IsoDate | undefined;
  /** 1 is Monday, 7 is Sunday. */
  weekday?: number | undefined;
  part?: string | undefined;
  /** In no part of the day. */
  outside?: boolean | undefined;
  /** `09:15` holds 09:15 to 09:29. */
  quarter?: string | undefined;
  /** `YYYY-MM` */
  month?: string | undefined;
  /** The Monday of the week. */
  week?: IsoDate | undefined;
  /** Says how long it lasted. */
  isTimed?: boolean | undefined;
}

/**
 * The incidents that a figure was made of, in the order they came in.
 *
 * @param timetable  the one that the figure was made with
 */
export function incidentsBehind<T extends Incident>(
  incidents: readonly T[],
  filter: IncidentFilter,
  timetable: Timetable,
): T[] {
  const { behavior, antecedent, consequence, location, observer, function: purpose, intensity, from, to } = filter;
  const asksForBlock = filter.part !== undefined || filter.outside;
  const partOf = partFinder(timetable);
  return incidents.filter((incident) => {
    if (from !== undefined && incident.on < from) return false;
    if (to !== undefined && incident.on > to) return false;
    if (behavior !== undefined && !incident.behaviors.includes(behavior)) return false;
    if (antecedent !== undefined && !incident.antecedents.includes(antecedent)) return false;
    if (consequence !== undefined && !incident.consequences.includes(consequence)) return false;
    if (location !== undefined && incident.location !== location) return false;
    if (observer !== undefined && incident.observer !== observer) return false;
    if (purpose !== undefined && !incident.functions.includes(purpose)) return false;
    if (intensity !== undefined && incident.intensity !== intensity) return false;
    if (filter.weekday !== undefined && weekday(incident.on) !== filter.weekday) return false;
    if (filter.month !== undefined && !incident.on.startsWith(filter.month)) return false;
    if (filter.week !== undefined && mondayOf(incident.on) !== filter.week) return false;
    if (filter.quarter !== undefined && quarterOf(incident.time) !== filter.quarter) return false;
    if (filter.isTimed && incident.seconds === null) return false;
    if (!asksForBlock) return true;
    const part = partOf(incident.on, incident.time)?.part;
    return filter.outside ? part === undefined : part === filter.part;
  });
}
