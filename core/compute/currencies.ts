/** Rates of exchange that a person has entered. They are never fetched. */
export type CurrencyTable = {
  /** The day of the rates, `YYYY-MM-DD`. */
  day: string;
  /** Code of the currency in which the rates are stated (ISO 4217). */
  base: string;
  /** How much of each currency one of the base is worth. */
  rates: readonly { code: string; rate: number }[];
};

/** The codes of ISO 4217 that people meet most; what is none of them is read as a unit or a name. */
const CODES = new Set(
  (
    'AED ARS AUD BGN BRL CAD CHF CLP CNY COP CZK DKK EGP EUR GBP HKD HUF IDR ILS INR ISK JPY KES KRW MAD MXN MYR NGN NOK ' +
    'NZD PEN PHP PKR PLN QAR RON RSD RUB SAR SEK SGD THB TRY TWD UAH USD VND ZAR'
  ).split(' '),
);

/** The code itself where it is one of a currency, else null. */
export const currencyCode = (text: string): string | null => (CODES.has(text) ? text : null);

export const unknownCurrency = (code: string): string =>
  `There is no rate for ${code}. Add it in the settings under “Currencies”.`;
