import { useState } from 'react';
import { View } from 'react-native';
import { useChanges } from '../../api/changes';
import { useCalendars, useStatus } from '../../api/queries';
import { whenDone } from '../../ui/doing';
import { Field } from '../../ui/field';
import { Failure } from '../../ui/notice';
import { pickFile } from '../../ui/pickFile';
import { WordButton } from '../../ui/press';
import { Title, Type } from '../../ui/type';
import { useUndoBar } from '../../ui/undoBar';

const STAND_IN_ADDRESS = '/standins/calendar.ics';

/** Calendars whose appointments stand on the day; they are only read. */
export function CalendarSettings() {
  const { data } = useCalendars();
  const { data: status } = useStatus();
  const { newCalendar, removeCalendar, refreshCalendar } = useChanges();
  const show = useUndoBar();
  const [address, setAddress] = useState('');
  const hasStandIn = data?.items.some((c) => c.isStandIn);
  const error = newCalendar.error ?? removeCalendar.error ?? refreshCalendar.error;

  const subscribe = (name: string, where: string) =>
    newCalendar.mutate(
      { name, address: where },
      { onSuccess: () => setAddress((now) => (now.trim() === where ? '' : now)) },
    );
  const nameOf = (where: string) => (URL.canParse(where) ? new URL(where).hostname : 'Calendar');
  const bringIn = async () => {
    const file = await pickFile('.ics,text/calendar');
    if (file) newCalendar.mutate({ name: file.name.replace(/\.ics$/i, '').slice(0, 80), content: await file.text() });
  };
  return (
    <View style={{ gap: 8 }}>
      <Title level={2}>Appointments</Title>
      <Type tone="faint">
        A recording made during an appointment gets its title, people and place. Immeld never writes to your calendar.
      </Type>
      {error && <Failure error={error} />}
      {data?.items.map((calendar) => (
        <View key={calendar.id} role="article" aria-label={calendar.name}>
          <Type isBold>
            {calendar.name}
            {calendar.isStandIn ? ' (stand-in: an invented calendar)' : ''}
          </Type>
          <Type size="tiny" tone={calendar.problem ? 'rowan' : 'faint'}>
            {calendar.problem ?? calendar.address ?? 'Imported from a file'}
          </Type>
          <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
            {calendar.address && <WordButton label="Refresh now" onPress={() => refreshCalendar.mutate(calendar.id)} />}
            <WordButton
              label="Remove"
              onPress={() =>
                whenDone(removeCalendar.mutateAsync(calendar.id), () =>
                  show(
                    `${calendar.name} removed.`,
                    calendar.address ? () => subscribe(calendar.name, calendar.address!) : undefined,
                  ),
                )
              }
            />
          </View>
        </View>
      ))}
      <Field
        label="Calendar address (https:// or webcal://)"
        value={address}
        onChangeText={setAddress}
        onSubmitEditing={() => address.trim() && subscribe(nameOf(address), address.trim())}
        inputMode="url"
        autoCapitalize="none"
        maxLength={2000}
      />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        <WordButton
          label="Subscribe"
          isBold
          disabled={address.trim() === ''}
          onPress={() => subscribe(nameOf(address), address.trim())}
        />
        <WordButton label="Import a calendar file" onPress={bringIn} />
        {status?.isDemo && !hasStandIn && (
          <WordButton
            label="Use the stand-in calendar"
            onPress={() => subscribe('Tamsin’s calendar', `${window.location.origin}${STAND_IN_ADDRESS}`)}
          />
        )}
      </View>
    </View>
  );
}
