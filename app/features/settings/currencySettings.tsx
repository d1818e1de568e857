import type { CurrencyTable } from '@immeld/core/compute/currencies';
import { useState } from 'react';
import { View } from 'react-native';
import { useChanges } from '../../api/changes';
import { useSharedSettings } from '../../api/queries';
import { DayField } from '../../ui/dayField';
import { localDay } from '../../ui/dates';
import { Field } from '../../ui/field';
import { Failure } from '../../ui/notice';
import { WordButton } from '../../ui/press';
import { RemovableList } from '../../ui/removableList';
import { Title, Type } from '../../ui/type';
import { useUndoBar } from '../../ui/undoBar';

const NONE: CurrencyTable = { day: '', base: 'EUR', rates: [] };

/** The rates that notes count with. Nothing is fetched: what stands here is what its person has entered. */
export function CurrencySettings() {
  const { data } = useSharedSettings();
  const { settings: change } = useChanges();
  const show = useUndoBar();
  const [code, setCode] = useState('');
  const [rate, setRate] = useState('');
  const table = data?.currencies ?? { ...NONE, day: localDay(new Date()) };
  const save = (currencies: CurrencyTable | null, done?: () => void) =>
    change.mutate(
      { currencies: currencies && { ...currencies, rates: [...currencies.rates] } },
      { onSuccess: () => done?.() },
    );
  const add = () => {
    const added = { code: code.trim().toUpperCase(), rate: Number(rate.replace(',', '.')) };
    const others = table.rates.filter((r) => r.code !== added.code);
    save({ ...table, day: localDay(new Date()), rates: [...others, added] }, () => {
      setCode('');
      setRate('');
    });
  };
  const remove = (gone: string) =>
    save({ ...table, rates: table.rates.filter((r) => r.code !== gone) }, () =>
      show(`${gone} removed.`, () => save(table)),
    );
  return (
    <View style={{ gap: 8 }}>
      <Title level={2}>Currencies</Title>
      <Type tone="faint">Notes convert money with these rates. Immeld never downloads rates; you enter them.</Type>
      {change.error && <Failure error={change.error} />}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12, alignItems: 'flex-end' }}>
        <Field
          label="Base currency"
          value={table.base}
          onChangeText={(base) => /^[A-Za-z]{3}$/.test(base) && save({ ...table, base: base.toUpperCase() })}
          maxLength={3}
          selectTextOnFocus
          style={{ width: 150 }}
        />
        <DayField label="Rates from" day={table.day} onChange={(day) => save({ ...table, day })} />
      </View>
      <RemovableList
        label="Rates"
        entries={table.rates.map((r) => ({ key: r.code, text: `1 ${table.base} = ${r.rate} ${r.code}` }))}
        onRemove={remove}
      />
      <View style={{ flexDirection: 'row', gap: 12 }}>
        <Field
          label="Currency code"
          value={code}
          onChangeText={setCode}
          onSubmitEditing={add}
          maxLength={3}
          style={{ flex: 1, minWidth: 0 }}
        />
        <Field
          label={`Rate per 1 ${table.base}`}
          value={rate}
          onChangeText={setRate}
          onSubmitEditing={add}
          maxLength={20}
          inputMode="decimal"
          style={{ flex: 1, minWidth: 0 }}
        />
      </View>
      <View style={{ flexDirection: 'row' }}>
        <WordButton label="Add rate" isBold disabled={!code.trim() || !rate.trim()} onPress={add} />
      </View>
    </View>
  );
}
