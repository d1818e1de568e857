import { ScrollView } from 'react-native';
import { AccountSettings } from '../features/settings/accountSettings';
import { ArchiveSettings } from '../features/settings/archiveSettings';
import { AsideSettings } from '../features/settings/asideSettings';
import { CalendarSettings } from '../features/settings/calendarSettings';
import { ConsentSettings } from '../features/settings/consentSettings';
import { CurrencySettings } from '../features/settings/currencySettings';
import { DictationSettings } from '../features/settings/dictationSettings';
import { GlossarySettings } from '../features/settings/glossarySettings';
import { ImportSettings } from '../features/settings/importSettings';
import { LanguageModelSettings } from '../features/settings/languageModelSettings';
import { ListeningSettings } from '../features/settings/listeningSettings';
import { MarkSettings } from '../features/settings/markSettings';
import { NameSettings } from '../features/settings/nameSettings';
import { PackSettings } from '../features/settings/packSettings';
import { PersonSettings } from '../features/settings/personSettings';
import { ReadingSettings } from '../features/settings/readingSettings';
import { SourceSettings } from '../features/settings/sourceSettings';
import { TranscriptionSettings } from '../features/settings/transcriptionSettings';
import { Page } from '../ui/shell';
import { Title } from '../ui/type';

export default function SettingsScreen() {
  return (
    <Page>
      <ScrollView contentContainerStyle={{ paddingTop: 14, paddingBottom: 40, gap: 28 }}>
        <Title>Settings</Title>
        <AccountSettings />
        <ArchiveSettings />
        <PersonSettings />
        <SourceSettings />
        <PackSettings />
        <NameSettings />
        <ListeningSettings />
        <TranscriptionSettings />
        <ReadingSettings />
        <MarkSettings />
        <ConsentSettings />
        <AsideSettings />
        <DictationSettings />
        <ImportSettings />
        <CalendarSettings />
        <CurrencySettings />
        <GlossarySettings />
        <LanguageModelSettings />
      </ScrollView>
    </Page>
  );
}
