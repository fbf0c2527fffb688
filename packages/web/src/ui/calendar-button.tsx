import { countText } from '@velvet-reed/core/units';
import { useState } from 'react';
import { toast } from 'sonner';
import { localStore } from '../data/browser-store';
import { showTrouble } from '../data/station';
import { Button } from './button';
import { calendarText, type CalendarEvent } from './calendar';
import { saveText } from './export';

/** When a calendar rings: minutes from the beginning of the event, before it negative. */
export interface Alarm {
  readonly minutes: number;
  readonly label: string;
}

/** Takes dates along for a calendar program, with an alarm where one is wanted; the choice is remembered. */
export function CalendarButton({
  name,
  alarms,
  waiting,
  events,
}: {
  /** Of the file, without its ending. */
  readonly name: string;
  readonly alarms: readonly Alarm[];
  /** So many records wait to be saved, and are not in the file. */
  readonly waiting: number;
  readonly events: (alarmMinutes: number | undefined) => readonly CalendarEvent[];
}) {
  const place = `reed-alarm-${name}`;
  const [chosen, setChosen] = useState(() => localStore.getItem(place) ?? '');
  const alarm = alarms.find(({ minutes }) => String(minutes) === chosen);
  const pick = (value: string): void => {
    setChosen(value);
    localStore.setItem(place, value);
  };
  const save = async (): Promise<void> => {
    saveText(`${name}.ics`, await calendarText(events(alarm?.minutes), Date.now()), 'text/calendar;charset=utf-8');
    if (waiting > 0)
      toast.message(
        `${countText(waiting, 'record')} not in the file: not saved in the station yet. Save the file again later.`,
      );
  };
  return (
    <span className="flex flex-wrap items-center gap-2">
      <Button look="quiet" onClick={() => void save().catch(showTrouble)}>
        Save for a calendar (.ics)
      </Button>
      <label className="text-sm text-dim">
        Alarm
        <select className="ml-2 text-ink" value={alarm ? chosen : ''} onChange={(event) => pick(event.target.value)}>
          <option value="">none</option>
          {alarms.map(({ minutes, label }) => (
            <option key={minutes} value={minutes}>
              {label}
            </option>
          ))}
        </select>
      </label>
    </span>
  );
}
