import { ScrollView } from 'react-native';
import { AccountSettings } from '../features/settings/accountSettings';
import { AsideSettings } from '../features/settings/asideSettings';
import { CalendarSettings } from '../features/settings/calendarSettings';
import { ConsentSettings } from '../features/settings/consentSettings';
import { ImportSettings } from '../features/settings/importSettings';
import { ListeningSettings } from '../features/settings/listeningSettings';
import { NameSettings } from '../features/settings/nameSettings';
import { PackSettings } from '../features/settings/packSettings';
import { ReadingSettings } from '../features/settings/readingSettings';
import { SourceSettings } from '../features/settings/sourceSettings';
import { Page } from '../ui/shell';
import { Title } from '../ui/type';

export default function SettingsScreen() {
  return (
    <Page>
      <ScrollView contentContainerStyle={{ paddingTop: 14, paddingBottom: 40, gap: 28 }}>
        <Title>Settings</Title>
        <AccountSettings />
        <SourceSettings />
        <PackSettings />
        <NameSettings />
        <ListeningSettings />
        <ReadingSettings />
        <ConsentSettings />
        <AsideSettings />
        <ImportSettings />
        <CalendarSettings />
      </ScrollView>
    </Page>
  );
}
