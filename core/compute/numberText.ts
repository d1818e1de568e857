const SIGNIFICANT = 12;
const MOST_DECIMALS = 10;

/** Making one takes longer than using it a hundred times. */
const formats = new Map<string, Intl.NumberFormat>();

/** English numbers with so many decimals at least and at most. */
export function decimalFormat(least: number, most: number): Intl.NumberFormat {
  const key = `${least} ${most}`;
  let format = formats.get(key);
  if (!format) {
    format = new Intl.NumberFormat('en', { minimumFractionDigits: least, maximumFractionDigits: most });
    formats.set(key, format);
  }
  return format;
}

/** A number as people write it: "10,080", "0.3", "1.2e+21". @param decimals that it has at least */
export function numberText(value: number, decimals = 0): string {
  const rounded = Number(value.toPrecision(SIGNIFICANT));
  if (rounded !== 0 && (Math.abs(rounded) >= 1e15 || Math.abs(rounded) < 1e-6)) return String(rounded);
  return decimalFormat(Math.min(decimals, MOST_DECIMALS), MOST_DECIMALS).format(rounded);
}
